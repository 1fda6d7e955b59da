-- A small picture of a figure, mesh or picture, for where one is chosen.
alter table project_assets add column thumbnail bytea;
