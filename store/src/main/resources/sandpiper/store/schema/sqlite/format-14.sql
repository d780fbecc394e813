create table sandpiper_reach (
  setting text primary key,
  address text not null,
  scheme text not null,
  user text not null,
  secret text,
  token_address text not null,
  scope text not null,
  changed_at integer not null,
  changed_by text not null
) without rowid;

create table sandpiper_outside_answer (
  connection text not null,
  key text not null,
  content text not null,
  until integer not null,
  primary key (connection, key)
) without rowid;

create index sandpiper_outside_answer_until on sandpiper_outside_answer (until);
