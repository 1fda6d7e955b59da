-- Who may sign in, where people do; what they may do in which project.
create table people (
  id uuid primary key,
  name text not null check (length(name) between 1 and 80),
  password text not null,
  created_at timestamptz not null default now()
);
create unique index people_by_name on people (lower(name));

-- A session is known by the hash of what its cookie holds.
create table sessions (
  token text primary key,
  person_id uuid not null references people on delete cascade,
  expires_at timestamptz not null
);

create table members (
  project_id uuid not null references projects on delete cascade,
  person_id uuid not null references people on delete cascade,
  role text not null check (role in ('owner', 'editor', 'viewer')),
  primary key (project_id, person_id)
);
create index projects_of_person on members (person_id);
