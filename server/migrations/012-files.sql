-- Files of a project that are neither figures nor pictures of effects: what is compared with, and the game's tone table.
create table project_files (
  project_id uuid not null references projects on delete cascade,
  purpose text not null check (purpose in ('reference', 'tone')),
  name text not null,
  type text not null,
  content bytea not null,
  kept_at timestamptz not null default now(),
  primary key (project_id, purpose)
);
-- How the light of a picture becomes what a screen shows.
alter table projects add column tone text not null default 'filmic' check (tone in ('none', 'neutral', 'filmic', 'table'));
