alter table sandpiper_client add column previous_hash text;

alter table sandpiper_client add column previous_until integer;

alter table sandpiper_client add column disabled integer not null default 0;
