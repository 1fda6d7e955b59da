-- An effect that keeps of another what it does not change.
alter table effects add column sibling_of uuid references effects on delete set null;
create index siblings_of_effect on effects (sibling_of);

-- Effects as they were: what a save wrote over, at most once in a while for each.
create table revisions (
  effect_id uuid not null references effects on delete cascade,
  revision integer not null,
  document text not null,
  kept_at timestamptz not null default now(),
  primary key (effect_id, revision)
);

-- Which effects stand in which, so that whoever holds one is found without reading every document.
create table linked_effects (
  effect_id uuid not null references effects on delete cascade,
  of_id uuid not null,
  primary key (effect_id, of_id)
);
create index holders_of_effect on linked_effects (of_id);
