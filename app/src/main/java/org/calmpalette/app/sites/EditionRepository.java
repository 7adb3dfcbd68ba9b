package org.calmpalette.app.sites;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface EditionRepository extends JpaRepository<Edition, Long> {
  List<Edition> findBySiteIdOrderByNumberDesc(long siteId);

  Optional<Edition> findBySiteIdAndNumber(long siteId, int number);

  Optional<Edition> findFirstBySiteIdAndPaletteHash(long siteId, String paletteHash);
}
