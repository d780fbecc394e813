create table sandpiper_contract_revision (
  service text not null,
  version integer not null,
  number integer not null,
  places text not null,
  ended_at integer,
  ended_by text,
  primary key (service, version, number)
) without rowid;

alter table sandpiper_traffic rename to sandpiper_traffic_before;

create table sandpiper_traffic (
  day integer not null,
  service text not null,
  version integer not null,
  revision integer not null,
  resource text not null,
  operation text not null,
  protocol text not null,
  caller text not null,
  calls integer not null,
  errors integer not null,
  micros integer not null,
  slowest integer not null,
  last integer not null,
  primary key (day, service, version, revision, resource, operation, protocol, caller)
) without rowid;

insert into sandpiper_traffic
select day, service, version, 0, resource, operation, protocol, caller,
  calls, errors, micros, slowest, last
from sandpiper_traffic_before;

drop table sandpiper_traffic_before;
