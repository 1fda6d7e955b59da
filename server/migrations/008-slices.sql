-- The bytes of assets in slices, so that none of them is ever read or written as a whole.
create table asset_slices (
  hash text not null references assets on delete cascade,
  n integer not null,
  bytes bytea not null,
  primary key (hash, n)
);
alter table assets add column size bigint;
-- Uncompressed, a slice can be taken out without unpacking the rest.
alter table assets alter column bytes set storage external;
update assets set bytes = bytes || ''::bytea, size = length(bytes);
insert into asset_slices (hash, n, bytes)
  select hash, n, substring(bytes from n * 262144 + 1 for 262144)
  from assets, generate_series(0, greatest(0, (size - 1) / 262144)::integer) as n;
alter table assets drop column bytes;
alter table assets alter column size set not null;
