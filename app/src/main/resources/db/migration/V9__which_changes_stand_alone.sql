-- Whether what lay between a state of a theme and the one before it has been removed, so that it stands for several changes.
alter table snapshot add column joined boolean not null default false;
