alter table sandpiper_delivery add column held_until integer;
