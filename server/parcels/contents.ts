import type { ParcelContents } from '@jinx/core/answers';
import { assetsIn, listed, type Effect } from '@jinx/core/document';
import { assetsOf, MOST_PARCEL_EFFECTS } from '@jinx/core/formats';
import type { Session } from '../database.ts';
import { documentFrom } from '../effects/index.ts';
import { notFound, Refusal } from '../errors.ts';

/** An effect that is handed over. */
export interface Given {
  readonly id: string;
  readonly name: string;
  readonly licence: string;
  readonly siblingOf: string | null;
  readonly effect: Effect;
}

/** Everything of some effects of a project that goes into a parcel. */
export interface Contents extends Omit<ParcelContents, 'effects'> {
  readonly effects: readonly Given[];
}

/** What an effect, or what is linked into it, calls an asset. */
function calledIn(effect: Effect, hash: string): string | null {
  const thing = listed(effect.stage.things).find(({ item }) => item.asset === hash);
  if (thing) return `the figure or prop "${thing.item.name}"`;
  for (const { hash: used, holder } of assetsIn(effect))
    if (used === hash && 'name' in holder) return `"${String(holder.name)}"`;
  for (const { item } of listed(effect.groups)) {
    const called = item.linked && calledIn(item.linked.effect, hash);
    if (called) return called;
  }
  return null;
}

/** Gathers what a parcel of some effects holds, and what it lacks. @throws Refusal where one is not in the project. */
export async function contentsOf(session: Session, projectId: string, ids: readonly string[]): Promise<Contents> {
  if (ids.length === 0 || ids.length > MOST_PARCEL_EFFECTS)
    throw new Refusal(400, 'request', `A parcel holds from one to ${MOST_PARCEL_EFFECTS} effects.`);
  const effects = await session.query<Omit<Given, 'effect'> & { head: string; text: string }>(
    `select id, name, licence, sibling_of as "siblingOf", head, document as text from effects
     where project_id = $1 and id = any($2) and deleted_at is null order by name, id`,
    [projectId, ids],
  );
  if (effects.rows.length < new Set(ids).size) throw notFound('effect');
  const given = effects.rows.map(({ head, text, ...row }): Given => {
    const siblingOf = ids.includes(row.siblingOf ?? '') ? row.siblingOf : null;
    return { ...row, siblingOf, effect: documentFrom(head, text) };
  });
  const wanted = new Map(given.flatMap((each) => assetsOf(each.effect).map((hash) => [hash, each] as const)));
  const assets = await session.query<ParcelContents['assets'][number]>(
    `select hash, name, kind, licence, size::float8 as bytes, original_name as "originalName",
       thumbnail is not null as "hasThumbnail"
     from project_assets join assets using (hash) where project_id = $1 and hash = any($2) order by kind, name, hash`,
    [projectId, [...wanted.keys()]],
  );
  const project = await session.query<{ licence: string }>('select licence from projects where id = $1', [projectId]);
  const missing = [...wanted].filter(([hash]) => !assets.rows.some((asset) => asset.hash === hash));
  return {
    licence: project.rows[0]!.licence,
    effects: given,
    assets: assets.rows,
    missing: missing.map(([hash, { name, effect }]) => ({
      effect: name,
      what: calledIn(effect, hash) ?? 'a picture or mesh',
    })),
  };
}
