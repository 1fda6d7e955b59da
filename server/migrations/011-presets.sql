-- How pictures and films of a project's effects are taken, under a name.
create table film_presets (
  project_id uuid not null references projects on delete cascade,
  name text not null,
  settings jsonb not null,
  kept_at timestamptz not null default now(),
  primary key (project_id, name)
);
