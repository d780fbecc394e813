create table sandpiper_session (
  hash text collate "C" primary key,
  id text collate "C" not null unique,
  owner text collate "C" not null,
  stamp text collate "C" not null,
  address text collate "C" not null,
  agent text collate "C" not null,
  begun bigint not null,
  used bigint not null
);

create index sandpiper_session_owner on sandpiper_session (owner);

create table sandpiper_try (
  key text collate "C" primary key,
  count bigint not null,
  last bigint not null
);

create table sandpiper_process (
  id text collate "C" primary key,
  name text collate "C" not null,
  format bigint not null,
  since bigint not null,
  beat bigint not null
);

alter table sandpiper_fence add column format bigint not null default 17;
