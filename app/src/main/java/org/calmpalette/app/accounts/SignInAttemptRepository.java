package org.calmpalette.app.accounts;

import java.time.LocalDateTime;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SignInAttemptRepository extends JpaRepository<SignInAttempt, Long> {
    @Query(
            "select a.at from SignInAttempt a where a.accountName = :signIn and a.address = :address and a.at > :after order by a.at desc")
    List<LocalDateTime> times(String signIn, String address, LocalDateTime after);

    @Query("select a.at from SignInAttempt a where a.address = :address and a.at > :after order by a.at desc limit 200")
    List<LocalDateTime> timesOf(String address, LocalDateTime after);

    @Query("select a.at from SignInAttempt a where a.accountName = :signIn order by a.at desc limit 10000")
    List<LocalDateTime> timesOfName(String signIn);

    void deleteByAccountName(String signIn);

    void deleteByAtBefore(LocalDateTime before);
}
