alter table sandpiper_client add column sealed text;

alter table sandpiper_client add column previous_sealed text;

alter table sandpiper_client add column calls_per_minute integer not null default 0;
