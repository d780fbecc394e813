alter table sandpiper_answer add column rights text not null default '';

alter table sandpiper_user add column temporary integer not null default 0;
