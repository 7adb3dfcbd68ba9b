package org.calmpalette.app.themes;

import java.time.LocalDateTime;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ImportJobRepository extends JpaRepository<ImportJob, String> {
    Optional<ImportJob> findByIdAndAccountId(String id, long accountId);

    void deleteByAccountId(long accountId);

    void deleteByUpdatedAtBefore(LocalDateTime before);
}
