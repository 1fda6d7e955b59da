-- Browsers that a person signed in with: their tries at a password are counted by themselves.
create table browsers (
  token text primary key,
  person_id uuid not null references people on delete cascade,
  known_since timestamptz not null default now()
);
create index browsers_of_person on browsers (person_id);
