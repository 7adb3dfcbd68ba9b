-- A sign-in name as people see it: without accents, letters that look the same as one. Filled by the application, which knows them.
alter table account add column likeness varchar(500) null;
create index account_likeness on account (likeness);
