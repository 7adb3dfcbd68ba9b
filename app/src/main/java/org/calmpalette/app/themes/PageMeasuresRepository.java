package org.calmpalette.app.themes;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface PageMeasuresRepository extends JpaRepository<PageMeasures, Long> {
    List<PageMeasures> findByThemeIdAndLayoutKeyIn(long themeId, Collection<String> keys);

    @Query("select m.layoutKey from PageMeasures m where m.themeId = ?1 and m.layoutKey in ?2")
    Set<String> known(long themeId, Collection<String> keys);

    @Query("select m.id from PageMeasures m where m.themeId = ?1 order by m.id desc")
    List<Long> ids(long themeId, Limit limit);

    @Modifying
    @Query("delete from PageMeasures m where m.themeId = ?1 and m.id < ?2")
    void deleteOlder(long themeId, long id);
}
