package org.calmpalette.app.themes;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface StoredThemeRepository extends JpaRepository<StoredTheme, Long> {
    List<StoredTheme> findByMakerIdOrderByNameAscIdAsc(long makerId);

    Optional<StoredTheme> findByIdAndMakerId(long id, long makerId);

    /** For changes: whoever comes second waits until the first one is done, and sees what it did. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select t from StoredTheme t where t.id = :id and t.makerId = :makerId")
    Optional<StoredTheme> lock(long id, long makerId);

    boolean existsByMakerIdAndName(long makerId, String name);
}
