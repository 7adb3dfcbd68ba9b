-- Links that show a draft to whoever has them, until they are over or withdrawn.
create table site_hand (
  id      bigint auto_increment primary key,
  site_id bigint      not null,
  until   datetime(3) not null,
  constraint site_hand_site foreign key (site_id) references site (id)
) character set utf8mb4;
