/**
 * A part of the statement that writes an effect ($1, to revision $4, by $8): notes that its siblings, and effects it is
 * linked into, have yet to take that, if anything was changed ($9).
 */
export const QUEUE_FOLLOWERS = `insert into following (effect_id, of_id, from_revision, to_revision, author)
  select id, $1, $4 - 1, $4, $8 from (
    select id from effects where sibling_of = $1 and deleted_at is null
    union select effects.id from linked_effects join effects on effects.id = effect_id where of_id = $1 and deleted_at is null
  ) as those where $9 order by id returning effect_id`;
