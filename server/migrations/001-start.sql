create table projects (
  id uuid primary key,
  name text not null check (length(name) between 1 and 80),
  created_at timestamptz not null default now()
);

-- Canonical assets, once by content.
create table assets (
  hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
  kind text not null,
  bytes bytea not null
);

create table project_assets (
  project_id uuid not null references projects on delete cascade,
  hash text not null references assets,
  name text not null,
  added_at timestamptz not null default now(),
  primary key (project_id, hash)
);

-- An effect's document is its canonical text; every save names the revision it was made from.
create table effects (
  id uuid primary key,
  project_id uuid not null references projects on delete cascade,
  name text not null,
  revision integer not null default 1,
  document text not null,
  saved_at timestamptz not null default now()
);
create index effects_of_project on effects (project_id);

-- Saves that came too late are kept beside what they met.
create table refused_saves (
  id uuid primary key,
  effect_id uuid not null references effects on delete cascade,
  made_from integer not null,
  document text not null,
  refused_at timestamptz not null default now()
);

create table facts (
  name text primary key,
  value text not null
);
