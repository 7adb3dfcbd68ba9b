-- Why a state of a theme goes out though promises are broken; null where nobody had to say.
alter table snapshot add column given_out varchar(300);
