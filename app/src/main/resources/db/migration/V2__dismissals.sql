-- Findings of the survey that a maker lets stand.
CREATE TABLE dismissal (
  id          BIGINT AUTO_INCREMENT PRIMARY KEY,
  theme_id    BIGINT       NOT NULL,
  finding_key TEXT         NOT NULL,
  message     VARCHAR(500) NOT NULL,
  note        VARCHAR(400) NOT NULL,
  author      VARCHAR(120) NOT NULL,
  at          DATETIME(3)  NOT NULL,
  CONSTRAINT dismissal_theme FOREIGN KEY (theme_id) REFERENCES theme (id) ON DELETE CASCADE
) CHARACTER SET utf8mb4;
