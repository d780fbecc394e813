create table sandpiper_recomputation (
  formula text primary key,
  reached integer not null
) without rowid;
