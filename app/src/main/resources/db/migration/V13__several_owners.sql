-- A site may have several owners.
alter table site drop foreign key site_owner;
create table site_owner (
  site_id    bigint not null,
  account_id bigint not null,
  primary key (site_id, account_id),
  constraint owner_of_site foreign key (site_id) references site (id),
  constraint owner_by_account foreign key (account_id) references account (id)
) character set utf8mb4;
insert into site_owner select id, owner_id from site where owner_id is not null;
alter table site drop column owner_id;

-- Invitations end by themselves.
alter table site add column invited_until datetime(3);
update site set invited_until = utc_timestamp(3) + interval 14 day where invitation is not null;

-- Links by which somebody who has forgotten a password writes another one: by the hash of what stands in them.
create table password_link (
  token_hash char(64) character set ascii collate ascii_bin primary key,
  account_id bigint      not null,
  until      datetime(3) not null,
  constraint password_link_one unique (account_id),
  constraint password_link_account foreign key (account_id) references account (id) on delete cascade
) character set utf8mb4;
