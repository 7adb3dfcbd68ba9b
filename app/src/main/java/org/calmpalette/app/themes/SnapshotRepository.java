package org.calmpalette.app.themes;

import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface SnapshotRepository extends JpaRepository<Snapshot, Long> {
    Optional<Snapshot> findFirstByParentIdOrderByIdDesc(long parentId);

    List<Snapshot> findByThemeIdOrderByIdDesc(long themeId, Limit limit);

    List<Snapshot> findByThemeIdAndPointNameNotNullOrderByIdDesc(long themeId);

    Optional<Snapshot> findByIdAndThemeId(long id, long themeId);

    long countByThemeId(long themeId);

    List<Snapshot> findByThemeIdOrderById(long themeId);

    List<Snapshot> findByAddedNull(Limit limit);

    @Modifying
    @Query("update Snapshot s set s.added = :added where s.id = :id")
    void count(long id, long added);

    /** Bytes of all snapshots of a maker's themes. */
    @Query(
            "select coalesce(sum(s.added), 0) from Snapshot s, StoredTheme t where s.themeId = t.id and t.makerId = :maker")
    long added(long maker);

    /** Snapshots that sites are built on, or were when something of them went live. */
    @Query(
            value =
                    "select snapshot_id from site where theme_id = :theme union select e.snapshot_id from edition e join snapshot s"
                            + " on s.id = e.snapshot_id where s.theme_id = :theme",
            nativeQuery = true)
    List<Long> usedBySites(long theme);
}
