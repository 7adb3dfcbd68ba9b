-- Which window made a change and as its how manieth, so that what one window sends twice or in another order is told from what two
-- windows wrote over each other.
alter table site_draft
  add column page_token char(16) character set ascii collate ascii_bin null,
  add column page_turn  int null,
  add index site_draft_page (site_id, page_token, page_turn);

-- What lost where two windows wrote the same: kept until its owner takes it or lets it go.
create table site_aside (
  id          bigint auto_increment primary key,
  site_id     bigint       not null,
  setting_key varchar(200) not null,
  band        varchar(60)  not null,
  value       longtext     not null,
  author      varchar(120) not null,
  at          datetime(3)  not null,
  page_token  char(16) character set ascii collate ascii_bin null,
  page_turn   int null,
  constraint site_aside_site foreign key (site_id) references site (id)
) character set utf8mb4;
