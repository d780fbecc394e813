alter table sandpiper_role add column package text;
