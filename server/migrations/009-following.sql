-- Effects that have yet to take what another was changed to: its siblings, and effects it is linked into.
create table following (
  id bigserial primary key,
  effect_id uuid not null references effects on delete cascade,
  of_id uuid not null references effects on delete cascade,
  -- The revisions of the other that lie between.
  from_revision integer not null,
  to_revision integer not null,
  author text not null,
  -- Why it could not be taken; it is tried again with the next change.
  failed text
);
create index following_by_effect on following (effect_id, of_id);
create index following_by_other on following (of_id);
