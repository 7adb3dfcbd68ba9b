package org.calmpalette.app.sites;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface SiteUploadRepository extends JpaRepository<SiteUpload, Long> {
    List<SiteUpload> findBySiteIdOrderByIdDesc(long siteId);

    Optional<SiteUpload> findByIdAndSiteId(long id, long siteId);

    Optional<SiteUpload> findBySiteIdAndPath(long siteId, String path);

    /** Whether any step of the draft, edition or choice put aside of a site names a path. */
    @Query(
            value = "select exists (select 1 from site_draft where site_id = :siteId and instr(choices, :path) > 0)"
                    + " or exists (select 1 from edition where site_id = :siteId and instr(choices, :path) > 0)"
                    + " or exists (select 1 from site_aside where site_id = :siteId and instr(value, :path) > 0)",
            nativeQuery = true)
    int isNamed(long siteId, String path);

    @Modifying
    @Query("delete from SiteUpload u where u.siteId = :siteId")
    void removeAll(long siteId);
}
