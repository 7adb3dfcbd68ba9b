-- What must stay in sight of a picture that an owner brought: left, top, width and height in hundredths of it.
alter table site_upload add column subject varchar(60) null;
