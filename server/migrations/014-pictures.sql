-- How many pictures of an effect were kept: each has an address of its own, which lasts.
alter table effects add column pictures integer not null default 0;
update effects set pictures = 1 where picture is not null;
