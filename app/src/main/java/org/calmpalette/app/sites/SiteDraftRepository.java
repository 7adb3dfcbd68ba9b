package org.calmpalette.app.sites;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface SiteDraftRepository extends JpaRepository<SiteDraft, Long> {
  Optional<SiteDraft> findFirstByParentIdOrderByIdDesc(long parentId);
}
