package org.calmpalette.app.accounts;

import java.time.LocalDateTime;
import org.springframework.data.jpa.repository.JpaRepository;

interface SignInAttemptRepository extends JpaRepository<SignInAttempt, Long> {
  long countByAccountNameAndAtAfter(String signIn, LocalDateTime after);

  void deleteByAccountName(String signIn);

  void deleteByAtBefore(LocalDateTime before);
}
