-- What an edition made otherwise than the one before it, in the words of the settings, and a word of whoever let it go live.
alter table edition
  add column changed varchar(600) not null default '',
  add column word    varchar(200) not null default '';
