create table sandpiper_view (
  object text not null,
  owner text not null,
  name text not null,
  filter text,
  search text,
  sort text,
  retired text,
  columns text not null,
  chart text not null,
  primary key (object, owner, name)
) without rowid;
