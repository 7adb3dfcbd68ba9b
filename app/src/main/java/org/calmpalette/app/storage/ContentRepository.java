package org.calmpalette.app.storage;

import java.util.List;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;
import org.springframework.transaction.annotation.Transactional;

interface ContentRepository extends Repository<Content, String> {
    @Query("select c.bytes from Content c where c.hash = :hash")
    byte[] bytes(String hash);

    /** Some of a content's bytes, so that a large one need not be in memory whole. */
    @Query(value = "select substring(bytes, :from + 1, :count) from content where hash = :hash", nativeQuery = true)
    byte[] bytes(String hash, long from, int count);

    /** 1 if the content is there; locks nothing. */
    @Query(value = "select count(*) from content where hash = :hash", nativeQuery = true)
    int isThere(String hash);

    /** 1 if the content is there, which also says that it is wanted again: the sweep passes it by for a while. */
    @Modifying
    @Query(value = "update content set kept_at = now(3) where hash = :hash", nativeQuery = true)
    int touch(String hash);

    /** Keeps a content unless it is kept already; two nodes may do so at once. */
    @Modifying
    @Query(
            value = "insert into content (hash, size, bytes, kept_at) values (:hash, :size, :bytes, now(3))"
                    + " on duplicate key update kept_at = now(3)",
            nativeQuery = true)
    void keep(String hash, long size, byte[] bytes);

    /** Hashes of contents that nobody has wanted for some minutes, in order, from after one of them. */
    @Query(
            value =
                    "select hash from content where kept_at < now(3) - interval :minutes minute and hash > :after order by hash limit 5000",
            nativeQuery = true)
    List<String> old(int minutes, String after);

    @Query(
            value =
                    "select distinct tree_hash from snapshot union select distinct live_tree from edition where live_tree is not null",
            nativeQuery = true)
    List<String> trees();

    /** Hashes of the pictures that owners brought. */
    @Query(value = "select distinct hash from site_upload", nativeQuery = true)
    List<String> uploads();

    /** Removes a content if it is still as old as that: who wanted it meanwhile keeps it. */
    @Modifying
    @Transactional
    @Query(
            value = "delete from content where hash = :hash and kept_at < now(3) - interval :minutes minute",
            nativeQuery = true)
    int remove(String hash, int minutes);
}
