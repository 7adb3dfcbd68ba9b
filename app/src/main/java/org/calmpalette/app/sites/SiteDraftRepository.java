package org.calmpalette.app.sites;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface SiteDraftRepository extends JpaRepository<SiteDraft, Long> {
    Optional<SiteDraft> findFirstByParentIdOrderByIdDesc(long parentId);

    boolean existsByParentId(long parentId);

    /** Whether a change of a window was heard before. */
    boolean existsBySiteIdAndPageTokenAndPageTurn(long siteId, String pageToken, int pageTurn);

    @Modifying
    @Query("delete from SiteDraft d where d.siteId = :siteId")
    void removeAll(long siteId);
}
