create table sandpiper_draft_version (
  number integer primary key,
  path text not null,
  content text not null,
  changed_at integer not null,
  changed_by text not null,
  kept_at integer not null
);

create index sandpiper_draft_version_path on sandpiper_draft_version (path);
