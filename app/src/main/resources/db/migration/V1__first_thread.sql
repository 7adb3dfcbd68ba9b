CREATE TABLE account (
  id            BIGINT AUTO_INCREMENT PRIMARY KEY,
  sign_in       VARCHAR(120) NOT NULL,
  name          VARCHAR(120) NOT NULL,
  password_hash VARCHAR(120) NOT NULL,
  role          VARCHAR(10)  NOT NULL,
  demo          BOOLEAN      NOT NULL,
  created_at    DATETIME(3)  NOT NULL,
  CONSTRAINT account_sign_in UNIQUE (sign_in)
) CHARACTER SET utf8mb4;

-- Failed attempts to sign in, so that passwords cannot be tried out one after the other on any node.
CREATE TABLE sign_in_attempt (
  id      BIGINT AUTO_INCREMENT PRIMARY KEY,
  sign_in VARCHAR(120) NOT NULL,
  at      DATETIME(3)  NOT NULL,
  INDEX sign_in_attempt_by_name (sign_in, at)
) CHARACTER SET utf8mb4;

-- Every content once, by the SHA-256 of its bytes. Lists of files (trees) are contents too.
CREATE TABLE content (
  hash  CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  size  BIGINT   NOT NULL,
  bytes LONGBLOB NOT NULL
);

CREATE TABLE theme (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  name       VARCHAR(120) NOT NULL,
  maker_id   BIGINT       NOT NULL,
  head_id    BIGINT,
  version    BIGINT       NOT NULL,
  created_at DATETIME(3)  NOT NULL,
  CONSTRAINT theme_maker FOREIGN KEY (maker_id) REFERENCES account (id)
) CHARACTER SET utf8mb4;

CREATE TABLE snapshot (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  theme_id   BIGINT       NOT NULL,
  parent_id  BIGINT,
  tree_hash  CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note       VARCHAR(500) NOT NULL,
  author     VARCHAR(120) NOT NULL,
  at         DATETIME(3)  NOT NULL,
  point_name VARCHAR(80),
  CONSTRAINT snapshot_theme FOREIGN KEY (theme_id) REFERENCES theme (id) ON DELETE CASCADE,
  INDEX snapshot_parent (parent_id)
) CHARACTER SET utf8mb4;

CREATE TABLE import_job (
  id         CHAR(36) CHARACTER SET ascii PRIMARY KEY,
  account_id BIGINT       NOT NULL,
  name       VARCHAR(255) NOT NULL,
  state      VARCHAR(10)  NOT NULL,
  done       INT          NOT NULL,
  total      INT          NOT NULL,
  path       VARCHAR(255) NOT NULL,
  message    VARCHAR(1000) NOT NULL,
  mend       VARCHAR(1000) NOT NULL,
  theme_id   BIGINT,
  updated_at DATETIME(3)  NOT NULL,
  CONSTRAINT import_job_account FOREIGN KEY (account_id) REFERENCES account (id)
) CHARACTER SET utf8mb4;

CREATE TABLE site (
  id          BIGINT AUTO_INCREMENT PRIMARY KEY,
  slug        VARCHAR(60) CHARACTER SET ascii NOT NULL,
  name        VARCHAR(120) NOT NULL,
  theme_id    BIGINT       NOT NULL,
  snapshot_id BIGINT       NOT NULL,
  maker_id    BIGINT       NOT NULL,
  owner_id    BIGINT,
  invitation  CHAR(43) CHARACTER SET ascii COLLATE ascii_bin,
  draft_id    BIGINT,
  live_id     BIGINT,
  version     BIGINT       NOT NULL,
  CONSTRAINT site_slug UNIQUE (slug),
  CONSTRAINT site_theme FOREIGN KEY (theme_id) REFERENCES theme (id),
  CONSTRAINT site_snapshot FOREIGN KEY (snapshot_id) REFERENCES snapshot (id),
  CONSTRAINT site_maker FOREIGN KEY (maker_id) REFERENCES account (id),
  CONSTRAINT site_owner FOREIGN KEY (owner_id) REFERENCES account (id)
) CHARACTER SET utf8mb4;

CREATE TABLE site_draft (
  id        BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id   BIGINT       NOT NULL,
  parent_id BIGINT,
  choices   LONGTEXT     NOT NULL,
  note      VARCHAR(500) NOT NULL,
  author    VARCHAR(120) NOT NULL,
  at        DATETIME(3)  NOT NULL,
  CONSTRAINT site_draft_site FOREIGN KEY (site_id) REFERENCES site (id),
  INDEX site_draft_parent (parent_id)
) CHARACTER SET utf8mb4;

CREATE TABLE edition (
  id           BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id      BIGINT       NOT NULL,
  number       INT          NOT NULL,
  snapshot_id  BIGINT       NOT NULL,
  choices      LONGTEXT     NOT NULL,
  palette_css  LONGTEXT     NOT NULL,
  palette_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note         VARCHAR(500) NOT NULL,
  author       VARCHAR(120) NOT NULL,
  at           DATETIME(3)  NOT NULL,
  CONSTRAINT edition_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT edition_snapshot FOREIGN KEY (snapshot_id) REFERENCES snapshot (id),
  CONSTRAINT edition_number UNIQUE (site_id, number)
) CHARACTER SET utf8mb4;

-- The key that signs the addresses of previews, the same for all nodes on one database.
CREATE TABLE signing_key (
  id       INT PRIMARY KEY,
  key_bytes VARBINARY(32) NOT NULL
);

-- Sign-in sessions, as Spring Session expects them.
CREATE TABLE SPRING_SESSION (
  PRIMARY_ID            CHAR(36)     NOT NULL,
  SESSION_ID            CHAR(36)     NOT NULL,
  CREATION_TIME         BIGINT       NOT NULL,
  LAST_ACCESS_TIME      BIGINT       NOT NULL,
  MAX_INACTIVE_INTERVAL INT          NOT NULL,
  EXPIRY_TIME           BIGINT       NOT NULL,
  PRINCIPAL_NAME        VARCHAR(100),
  CONSTRAINT SPRING_SESSION_PK PRIMARY KEY (PRIMARY_ID)
) ENGINE = InnoDB ROW_FORMAT = DYNAMIC;

CREATE UNIQUE INDEX SPRING_SESSION_IX1 ON SPRING_SESSION (SESSION_ID);
CREATE INDEX SPRING_SESSION_IX2 ON SPRING_SESSION (EXPIRY_TIME);
CREATE INDEX SPRING_SESSION_IX3 ON SPRING_SESSION (PRINCIPAL_NAME);

CREATE TABLE SPRING_SESSION_ATTRIBUTES (
  SESSION_PRIMARY_ID CHAR(36)     NOT NULL,
  ATTRIBUTE_NAME     VARCHAR(200) NOT NULL,
  ATTRIBUTE_BYTES    BLOB         NOT NULL,
  CONSTRAINT SPRING_SESSION_ATTRIBUTES_PK PRIMARY KEY (SESSION_PRIMARY_ID, ATTRIBUTE_NAME),
  CONSTRAINT SPRING_SESSION_ATTRIBUTES_FK FOREIGN KEY (SESSION_PRIMARY_ID)
    REFERENCES SPRING_SESSION (PRIMARY_ID) ON DELETE CASCADE
) ENGINE = InnoDB ROW_FORMAT = DYNAMIC;
