import type { Effect } from '@jinx/core/document';
import { linkedInto } from '@jinx/core/editing';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';

/** Notes which effects of the same project stand in one: what was linked elsewhere and came in a parcel stays as it came. */
export async function noteLinked(session: Session, id: string, effect: Effect): Promise<void> {
  await session.query(
    `with gone as (delete from linked_effects where effect_id = $1 and of_id <> all($2::uuid[]))
     insert into linked_effects (effect_id, of_id)
     select $1, of.id from effects as of where of.id = any($2::uuid[])
       and of.project_id = (select project_id from effects where id = $1)
     on conflict do nothing`,
    [id, linkedInto(effect)],
  );
}

/**
 * Refuses an effect that would stand in itself, by however many others: in it may stand neither itself, nor what holds it,
 * nor what follows it as a sibling, for that would take on what is linked here.
 */
export async function mustNotHoldItself(session: Session, id: string, effect: Effect): Promise<void> {
  const linked = linkedInto(effect);
  if (linked.length === 0) return;
  // Two that are linked into each other at once would not see each other.
  await session.query(
    'select 1 from projects where id = (select project_id from effects where id = $1) for no key update',
    [id],
  );
  const { rowCount } = await session.query(
    `with recursive within (id) as (
       select unnest($2::uuid[])
       union select next.id from within, lateral (
         select of_id as id from linked_effects where effect_id = within.id
         union all select sibling_of from effects where effects.id = within.id and sibling_of is not null
       ) as next
     ) select 1 from within where id = $1`,
    [id, linked],
  );
  if (rowCount)
    throw new Refusal(
      422,
      'circle',
      'An effect cannot stand in itself: one that is linked here holds it already, or follows it.',
      { path: 'groups' },
    );
}
