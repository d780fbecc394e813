create table sandpiper_event (
  number integer primary key autoincrement,
  id blob not null,
  name text not null,
  kind text not null,
  unit blob not null,
  object text,
  record blob,
  key text,
  at integer not null,
  actor text not null,
  via text not null,
  depth integer not null,
  data text not null
);

create table sandpiper_event_position (
  reader text primary key,
  number integer not null
) without rowid;

create table sandpiper_delivery (
  number integer primary key,
  event integer not null references sandpiper_event,
  kind text not null,
  target text not null,
  record blob,
  state text not null,
  tries integer not null,
  due integer not null,
  done_at integer,
  said text not null,
  trace blob
);

create index sandpiper_delivery_due on sandpiper_delivery (state, kind, due);

create index sandpiper_delivery_event on sandpiper_delivery (event);

create index sandpiper_delivery_record on sandpiper_delivery (state, target, record, event);

create table sandpiper_delivery_try (
  number integer primary key,
  delivery integer not null references sandpiper_delivery on delete
    cascade,
  at integer not null,
  millis integer not null,
  status integer not null,
  request text not null,
  answer text not null,
  said text not null
);

create index sandpiper_delivery_try_of on sandpiper_delivery_try (delivery);

create table sandpiper_webhook (
  name text primary key,
  label text not null,
  address text not null,
  events text not null,
  filter text,
  secret text not null,
  previous_secret text,
  previous_until integer,
  disabled integer not null
) without rowid;

create table sandpiper_schedule (
  name text primary key,
  ran_for integer not null,
  running integer,
  after integer not null
) without rowid;

create table sandpiper_run (
  number integer primary key,
  at integer not null,
  kind text not null,
  name text not null,
  object text not null,
  key text not null,
  outcome text not null,
  said text not null,
  micros integer not null,
  actor text not null,
  via text not null,
  trace blob
);
