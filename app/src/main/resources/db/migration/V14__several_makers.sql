-- A theme may have other makers beside the one whose it is.
create table theme_maker (
  theme_id   bigint not null,
  account_id bigint not null,
  primary key (theme_id, account_id),
  constraint maker_of_theme foreign key (theme_id) references theme (id) on delete cascade,
  constraint maker_by_account foreign key (account_id) references account (id)
) character set utf8mb4;

-- One invitation of a theme is open at a time; it works once and ends by itself.
create table theme_invitation (
  theme_id bigint primary key,
  token    char(43) character set ascii collate ascii_bin not null,
  until    datetime(3) not null,
  constraint theme_invitation_token unique (token),
  constraint theme_invitation_theme foreign key (theme_id) references theme (id) on delete cascade
) character set utf8mb4;
