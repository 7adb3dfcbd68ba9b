-- Boxes of pages as a browser laid them out. Named by all that decides them, so they stay good when only paint changes; each theme
-- has its own, since they come from the maker's browser.
CREATE TABLE page_measures (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  theme_id   BIGINT      NOT NULL,
  layout_key CHAR(64)    CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  packed     MEDIUMBLOB  NOT NULL,
  at         DATETIME(3) NOT NULL,
  CONSTRAINT page_measures_once UNIQUE (theme_id, layout_key),
  CONSTRAINT page_measures_theme FOREIGN KEY (theme_id) REFERENCES theme (id) ON DELETE CASCADE
) CHARACTER SET utf8mb4;
