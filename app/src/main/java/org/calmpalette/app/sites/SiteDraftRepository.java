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

    /** The newest draft of a site that is not among so many newest ones, or that lies beyond so many bytes of choices. */
    @Query(
            value =
                    "select coalesce(max(id), 0) from (select id, sum(length(choices)) over (order by id desc) as bytes,"
                            + " row_number() over (order by id desc) as n from site_draft where site_id = :siteId) d where n > :most or bytes > :bytes",
            nativeQuery = true)
    long beyond(long siteId, int most, long bytes);

    @Modifying
    @Query("delete from SiteDraft d where d.siteId = :siteId and d.id <= :id and d.id <> :now")
    void removeUpTo(long siteId, long id, long now);

    /** What is left has nothing before it. */
    @Modifying
    @Query("update SiteDraft d set d.parentId = null where d.siteId = :siteId and d.parentId <= :id")
    void firstAfter(long siteId, long id);

    @Modifying
    @Query("delete from SiteDraft d where d.siteId = :siteId")
    void removeAll(long siteId);
}
