package org.calmpalette.app.sites;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.language.Language;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface EditionRepository extends JpaRepository<Edition, Long> {
    /** An edition without its texts, for lists. */
    record Line(long id, int number, String note, String changed, String word, String author, LocalDateTime at) {
        public Line {
            note = Language.told(note);
        }
    }

    @Query(
            "select new org.calmpalette.app.sites.EditionRepository$Line(e.id, e.number, e.note, e.changed, e.word, e.author, e.at) from Edition e"
                    + " where e.siteId = :siteId order by e.number desc")
    List<Line> lines(long siteId);

    @Query("select coalesce(max(e.number), 0) from Edition e where e.siteId = :siteId")
    int newest(long siteId);

    Optional<Edition> findBySiteIdAndNumber(long siteId, int number);

    Optional<Edition> findFirstBySiteIdAndPaletteHashOrderByIdDesc(long siteId, String paletteHash);

    Optional<Edition> findFirstBySiteIdAndFilesHashOrderByIdDesc(long siteId, String filesHash);

    /** Editions from before what is live was built; see {@link LiveSites}. */
    @Query(
            "select e.id from Edition e where e.siteId = :siteId and e.liveTree is null and e.filesHash is null order by e.number desc")
    List<Long> notBuilt(long siteId);

    /** Lets go of what visitors of editions up to a number got; made again from their choices where one is taken back. */
    @Modifying
    @Query(
            "update Edition e set e.liveTree = null where e.siteId = :siteId and e.number <= :number and e.liveTree is not null")
    void release(long siteId, int number);

    @Modifying
    @Query("delete from Edition e where e.siteId = :siteId and e.number <= :number")
    void removeUpTo(long siteId, int number);

    @Modifying
    @Query("delete from Edition e where e.siteId = :siteId")
    void removeAll(long siteId);
}
