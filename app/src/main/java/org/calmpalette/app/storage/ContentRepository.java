package org.calmpalette.app.storage;

import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface ContentRepository extends Repository<Content, String> {
  @Query("select c.bytes from Content c where c.hash = :hash")
  byte[] bytes(String hash);

  boolean existsByHash(String hash);

  /** Keeps a content unless it is kept already; two nodes may do so at once. */
  @Modifying
  @Query(value = "insert ignore into content (hash, size, bytes) values (:hash, :size, :bytes)", nativeQuery = true)
  void keep(String hash, long size, byte[] bytes);
}
