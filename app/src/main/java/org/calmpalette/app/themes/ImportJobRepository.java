package org.calmpalette.app.themes;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ImportJobRepository extends JpaRepository<ImportJob, String> {
  Optional<ImportJob> findByIdAndAccountId(String id, long accountId);
}
