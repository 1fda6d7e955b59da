-- What may be done with a project's effects, an effect that came with a licence of its own, and an asset, in words.
alter table projects add column licence text not null default '';
alter table effects add column licence text not null default '';
alter table project_assets add column licence text not null default '';

-- The file that an asset was imported from, as it was brought: kept like an asset, of the kind 'original'.
alter table project_assets add column original text references assets;
alter table project_assets add column original_name text;
create index originals_of_assets on project_assets (original) where original is not null;

-- The bones of a project's figure that take the places of those of a figure which came in parcels.
create table bone_maps (
  project_id uuid not null references projects on delete cascade,
  from_hash text not null,
  to_hash text not null,
  bones jsonb not null,
  made_at timestamptz not null default now(),
  primary key (project_id, from_hash, to_hash)
);
