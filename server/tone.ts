import type { Answer } from '@jinx/core/answers';
import type { Session } from './database.ts';
import { notFound } from './errors.ts';

/** The tone curve that a project's pictures are shown by, with the text of its table where it is one. */
export async function toneOf(session: Session, projectId: string): Promise<Answer<'GET /projects/:id/tone'>> {
  const { rows } = await session.query<{ tone: 'none' | 'neutral' | 'filmic' | 'table'; content: Buffer | null }>(
    `select tone, content from projects left join project_files on project_id = id and purpose = 'tone'
     and tone = 'table' where id = $1`,
    [projectId],
  );
  const [row] = rows;
  if (!row) throw notFound('project');
  const { tone, content } = row;
  if (tone !== 'table') return { kind: tone };
  return content ? { kind: tone, text: content.toString('utf8') } : { kind: 'filmic' };
}

/** Says that the thumbnails of a project's effects show another tone curve: they are made anew, and served until then. */
export async function outdatePictures(session: Session, projectId: string): Promise<void> {
  await session.query('update effects set picture_revision = null where project_id = $1', [projectId]);
}
