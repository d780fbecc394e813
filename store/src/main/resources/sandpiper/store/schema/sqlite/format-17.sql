create table sandpiper_session (
  hash text primary key,
  id text not null unique,
  owner text not null,
  stamp text not null,
  address text not null,
  agent text not null,
  begun integer not null,
  used integer not null
);

create index sandpiper_session_owner on sandpiper_session (owner);

create table sandpiper_try (
  key text primary key,
  count integer not null,
  last integer not null
);
