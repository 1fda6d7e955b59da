-- Most particles of one effect living at once.
alter table projects add column living_budget integer not null default 100000 check (living_budget between 1000 and 4000000);
