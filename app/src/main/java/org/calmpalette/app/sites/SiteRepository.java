package org.calmpalette.app.sites;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface SiteRepository extends JpaRepository<Site, Long> {
    Optional<Site> findBySlug(String slug);

    /** For changes: whoever comes second waits until the first one is done, and sees what it did. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Site s where s.slug = :slug")
    Optional<Site> lock(String slug);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Site s where s.id = :id")
    Optional<Site> lock(long id);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Site s where s.invitation = :token")
    Optional<Site> lockInvited(String token);

    Optional<Site> findByInvitation(String invitation);

    boolean existsBySlug(String slug);

    List<Site> findByThemeIdAndMakerIdOrderByName(long themeId, long makerId);

    @Query("select s from Site s where :owner member of s.owners order by s.name")
    List<Site> ownedBy(long owner);

    @Query("select s from Site s where s.makerId = :maker and s.owners is empty order by s.name")
    List<Site> keptBy(long maker);

    List<Site> findByMakerIdOrderByName(long makerId);
}
