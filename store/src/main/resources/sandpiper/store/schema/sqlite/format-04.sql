alter table sandpiper_user add column roles text not null default '';

alter table sandpiper_user add column disabled integer not null default 0;

create table sandpiper_role (
  name text primary key,
  label text not null,
  describe text not null,
  duties text not null,
  services text not null
) without rowid;

create table sandpiper_role_object (
  role text not null references sandpiper_role on delete cascade,
  number integer not null,
  object text not null,
  actions text not null,
  condition text not null,
  hidden text not null,
  read_only text not null,
  primary key (role, number)
) without rowid;

create table sandpiper_access_entry (
  number integer primary key,
  at integer not null,
  actor text not null,
  what text not null,
  subject text not null,
  detail text not null
);

create table sandpiper_traffic (
  day integer not null,
  service text not null,
  version integer not null,
  resource text not null,
  operation text not null,
  protocol text not null,
  caller text not null,
  calls integer not null,
  errors integer not null,
  micros integer not null,
  slowest integer not null,
  last integer not null,
  primary key (day, service, version, resource, operation, protocol, caller)
) without rowid;

create table sandpiper_failed_request (
  number integer primary key,
  at integer not null,
  service text not null,
  version integer not null,
  resource text not null,
  operation text not null,
  protocol text not null,
  caller text not null,
  status integer not null,
  message text not null,
  trace text not null
);
