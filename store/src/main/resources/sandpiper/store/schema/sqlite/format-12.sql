create table sandpiper_kept (
  number integer primary key autoincrement,
  kept_at integer not null,
  release integer not null,
  object text not null,
  part text,
  field text,
  object_now text not null,
  part_now text,
  field_now text,
  rows integer not null
);

create table sandpiper_package_origin (
  package text not null,
  content text not null,
  version text not null,
  manifest text not null,
  signer text,
  unpacked_at integer not null,
  unpacked_by text not null,
  primary key (package, content)
) without rowid;
