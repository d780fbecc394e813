create table sandpiper_file (
  sha256 text primary key,
  content blob not null
);
