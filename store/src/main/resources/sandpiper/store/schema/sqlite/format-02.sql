create table sandpiper_trace (
  number integer primary key,
  id blob not null unique,
  at integer not null,
  actor text not null,
  via text not null,
  what text not null,
  outcome text not null
);

create table sandpiper_trace_step (
  trace integer not null references sandpiper_trace on delete cascade,
  number integer not null,
  depth integer not null,
  kind text not null,
  title text not null,
  detail text not null,
  result text not null,
  micros integer not null,
  primary key (trace, number)
) without rowid;
