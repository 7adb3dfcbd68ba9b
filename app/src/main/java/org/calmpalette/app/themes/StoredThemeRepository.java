package org.calmpalette.app.themes;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface StoredThemeRepository extends JpaRepository<StoredTheme, Long> {
    /** Those that are a maker's own. */
    List<StoredTheme> findByMakerIdOrderByNameAscIdAsc(long makerId);

    /** Those of others that a maker works on too. */
    @Query("select t from StoredTheme t where :maker member of t.others order by t.name, t.id")
    List<StoredTheme> sharedWith(long maker);

    /** One that a maker works on. */
    @Query("select t from StoredTheme t where t.id = :id and (t.makerId = :makerId or :makerId member of t.others)")
    Optional<StoredTheme> findByIdAndMakerId(long id, long makerId);

    /** For changes: whoever comes second waits until the first one is done, and sees what it did. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select t from StoredTheme t where t.id = :id and (t.makerId = :makerId or :makerId member of t.others)")
    Optional<StoredTheme> lock(long id, long makerId);

    boolean existsByMakerIdAndName(long makerId, String name);
}
