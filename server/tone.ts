import type { Answer, ToneChoice } from '@jinx/core/answers';
import type { Session } from './database.ts';
import { notFound } from './errors.ts';

/** The tone curve that a project's pictures are shown by, with the text of its table where it is one. */
export async function toneOf(session: Session, projectId: string): Promise<Answer<'GET /projects/:id/tone'>> {
  const { rows } = await session.query<{ tone: ToneChoice; content: Buffer | null }>(
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

/**
 * Sets the tone curve of a project; with `from`, only where it has that one. Thumbnails of its effects show another curve
 * then: they are made anew, and the last ones are served until then.
 */
export async function setTone(session: Session, projectId: string, to: ToneChoice, from?: ToneChoice): Promise<void> {
  const { rowCount } = await session.query(
    'update projects set tone = $2 where id = $1 and ($3::text is null or tone = $3)',
    [projectId, to, from ?? null],
  );
  if (rowCount) await session.query('update effects set picture_revision = null where project_id = $1', [projectId]);
}
