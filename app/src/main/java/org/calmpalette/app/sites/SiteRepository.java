package org.calmpalette.app.sites;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface SiteRepository extends JpaRepository<Site, Long> {
  Optional<Site> findBySlug(String slug);

  Optional<Site> findByInvitation(String invitation);

  boolean existsBySlug(String slug);

  List<Site> findByThemeIdAndMakerIdOrderByName(long themeId, long makerId);

  List<Site> findByOwnerIdOrderByName(long ownerId);

  List<Site> findByMakerIdAndOwnerIdIsNullOrderByName(long makerId);
}
