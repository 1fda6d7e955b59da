-- A small picture of an effect, and the revision it shows.
alter table effects add column picture bytea;
alter table effects add column picture_revision integer;
