package org.calmpalette.app.sites;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface SiteAsideRepository extends JpaRepository<SiteAside, Long> {
    List<SiteAside> findBySiteIdOrderById(long siteId);

    boolean existsBySiteIdAndPageTokenAndPageTurn(long siteId, String pageToken, int pageTurn);

    @Modifying
    @Query("delete from SiteAside a where a.siteId = :siteId")
    void removeAll(long siteId);
}
