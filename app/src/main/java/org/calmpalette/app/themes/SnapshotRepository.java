package org.calmpalette.app.themes;

import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;

interface SnapshotRepository extends JpaRepository<Snapshot, Long> {
    Optional<Snapshot> findFirstByParentIdOrderByIdDesc(long parentId);

    List<Snapshot> findByThemeIdOrderByIdDesc(long themeId, Limit limit);

    List<Snapshot> findByThemeIdAndPointNameNotNullOrderByIdDesc(long themeId);

    Optional<Snapshot> findByIdAndThemeId(long id, long themeId);

    long countByThemeId(long themeId);
}
