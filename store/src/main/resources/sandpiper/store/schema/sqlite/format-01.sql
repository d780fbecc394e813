create table sandpiper_draft (
  path text primary key,
  content text not null,
  changed_at integer not null,
  changed_by text not null
) without rowid;

create table sandpiper_release (
  number integer primary key,
  released_at integer not null,
  released_by text not null,
  note text not null,
  changes text not null
);

create table sandpiper_release_file (
  release integer not null references sandpiper_release,
  path text not null,
  content text not null,
  primary key (release, path)
) without rowid;

create table sandpiper_history (
  number integer primary key,
  object text not null,
  record blob not null,
  version integer not null,
  at integer not null,
  actor text not null,
  via text not null,
  operation text not null,
  changes text not null
);

create index sandpiper_history_record on sandpiper_history (record);

create table sandpiper_answer (
  actor text not null,
  key text not null,
  fingerprint text not null,
  content text not null,
  at integer not null,
  primary key (actor, key)
) without rowid;

create index sandpiper_answer_at on sandpiper_answer (at);

create table sandpiper_series (
  object text not null,
  series text not null,
  last integer not null,
  primary key (object, series)
) without rowid;

create table sandpiper_user (
  name text primary key,
  label text not null,
  password_hash text not null,
  duties text not null
) without rowid;

create table sandpiper_client (
  name text primary key,
  label text not null,
  secret_hash text not null,
  grants text not null,
  created_at integer not null,
  last_used integer
) without rowid;

create table sandpiper_setting (
  name text primary key,
  value text not null
) without rowid;
