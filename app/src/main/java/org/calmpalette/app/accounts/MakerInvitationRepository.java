package org.calmpalette.app.accounts;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface MakerInvitationRepository extends JpaRepository<MakerInvitation, String> {
    List<MakerInvitation> findByMadeByOrderByAtDesc(long madeBy);

    /** 1 for the one who uses it, 0 for whoever comes later. */
    @Modifying
    @Query("delete from MakerInvitation i where i.token = :token")
    int use(String token);
}
