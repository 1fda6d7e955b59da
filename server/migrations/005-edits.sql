-- Every change that was saved, under the id its maker gave it: one that is sent twice is taken once, one that comes late is
-- merged with what came since.
create table edits (
  id uuid primary key,
  effect_id uuid not null references effects on delete cascade,
  -- The revision it made.
  revision integer not null,
  -- A list of changes, as JSON, from the revision before.
  changes text not null,
  labels text[] not null,
  author text not null,
  made_at timestamptz not null default now(),
  unique (effect_id, revision)
);
create index edits_by_age on edits (made_at);

-- The edit that made the present revision.
alter table effects add column head uuid not null default gen_random_uuid();
insert into edits (id, effect_id, revision, changes, labels, author) select head, id, revision, '[]', '{}', '' from effects;

-- What is deleted can be brought back for a while.
alter table effects add column deleted_at timestamptz;
alter table projects add column deleted_at timestamptz;
alter table project_assets add column deleted_at timestamptz;

-- Revisions may be given a name, and are kept as they were saved, by whom.
alter table revisions add column name text;
alter table revisions add column author text not null default '';
alter table effects add column saved_by text not null default '';

-- States of an effect that somebody put by.
create table tray (
  id uuid primary key,
  effect_id uuid not null references effects on delete cascade,
  name text not null,
  document text not null,
  -- The instant it was kept at, on the time sheet.
  seconds double precision not null,
  picture bytea,
  author text not null,
  kept_at timestamptz not null default now(),
  deleted_at timestamptz
);
create index tray_of_effect on tray (effect_id);
insert into tray (id, effect_id, name, document, seconds, author, kept_at)
  select id, effect_id, 'A save that came too late', document, 0, '', refused_at from refused_saves;
drop table refused_saves;
