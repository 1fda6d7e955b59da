import type { FoundIn } from '@jinx/core/answers';
import type { Session } from './database.ts';
import type { Workers } from './workers/workers.ts';

/** Effects that are looked through at most, and at one time. */
const MOST_EFFECTS = 2000;
const EFFECTS_AT_ONCE = 16;

/** Looks for words in everything that is set in the effects of a project: pictures, meshes, looks, colours, settings, values. */
export async function searchProject(
  session: Session,
  workers: Workers,
  projectId: string,
  text: string,
): Promise<FoundIn[]> {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const { rows: ids } = await session.query<{ id: string }>(
    `select id from effects where project_id = $1 and deleted_at is null order by name, id limit ${MOST_EFFECTS}`,
    [projectId],
  );
  const found: FoundIn[] = [];
  for (let at = 0; at < ids.length; at += EFFECTS_AT_ONCE) {
    const some = ids.slice(at, at + EFFECTS_AT_ONCE).map(({ id }) => id);
    const { rows: effects } = await session.query<{ id: string; name: string; document: string }>(
      'select id, name, document from effects where id = any($1::uuid[]) order by name, id',
      [some],
    );
    found.push(...(await workers.run('searchEffects', { effects, words })));
  }
  return found;
}
