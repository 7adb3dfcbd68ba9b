package org.calmpalette.app.themes;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface StoredThemeRepository extends JpaRepository<StoredTheme, Long> {
  List<StoredTheme> findByMakerIdOrderByNameAscIdAsc(long makerId);

  Optional<StoredTheme> findByIdAndMakerId(long id, long makerId);

  boolean existsByMakerIdAndName(long makerId, String name);
}
