package org.calmpalette.app.themes;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface DismissalRepository extends JpaRepository<Dismissal, Long> {
    List<Dismissal> findByThemeIdOrderByIdDesc(long themeId);

    long deleteByThemeIdAndFindingKey(long themeId, String findingKey);
}
