package org.calmpalette.app.accounts;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface AccountRepository extends JpaRepository<Account, Long> {
    Optional<Account> findByAccountName(String signIn);

    List<Account> findByRoleOrderByName(Role role);

    List<Account> findByDemoTrue();

    boolean existsByLikeness(String likeness);

    List<Account> findByLikenessIsNull();
}
