-- What visitors get is built once, when an edition goes live: a list of files, kept as a content like every tree.
-- Editions of before have none until somebody asks for them.
ALTER TABLE edition
  ADD COLUMN live_tree  CHAR(64) CHARACTER SET ascii COLLATE ascii_bin,
  ADD COLUMN files_hash CHAR(24) CHARACTER SET ascii COLLATE ascii_bin,
  ADD INDEX edition_palette (site_id, palette_hash),
  ADD INDEX edition_files (site_id, files_hash);

-- Names that are keys are compared as they are written, in one normal form that the application makes.
-- A session keeps the sign-in name, so it may not be longer than the session's column; longer ones never could sign in.
UPDATE account SET sign_in = LEFT(sign_in, 100) WHERE CHAR_LENGTH(sign_in) > 100;
ALTER TABLE account
  MODIFY sign_in VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
ALTER TABLE site
  MODIFY slug VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL;
ALTER TABLE SPRING_SESSION
  MODIFY PRINCIPAL_NAME VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;

-- Wrong passwords slow down the name at one address, and an address that tries many names.
DELETE FROM sign_in_attempt;
ALTER TABLE sign_in_attempt
  MODIFY sign_in VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  ADD COLUMN address VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD INDEX sign_in_attempt_by_address (address, at);

-- Contents that nothing uses any more are swept away, but not what an import is still bringing in.
ALTER TABLE content
  ADD COLUMN kept_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3);

-- A maker lets another maker in.
CREATE TABLE maker_invitation (
  token   CHAR(43) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  made_by BIGINT      NOT NULL,
  at      DATETIME(3) NOT NULL,
  CONSTRAINT maker_invitation_by FOREIGN KEY (made_by) REFERENCES account (id) ON DELETE CASCADE
);
