-- Pictures that belong to a site and not to its theme. One that was taken off the shelf stays while a draft or an edition names it.
create table site_upload (
  id       bigint auto_increment primary key,
  site_id  bigint       not null,
  path     varchar(200) not null,
  name     varchar(200) not null,
  hash     char(64) character set ascii collate ascii_bin not null,
  size     bigint       not null,
  width    int          not null,
  height   int          not null,
  author   varchar(120) not null,
  at       datetime(3)  not null,
  shelved  boolean      not null default true,
  constraint site_upload_once unique (site_id, path),
  constraint site_upload_site foreign key (site_id) references site (id)
) character set utf8mb4;
