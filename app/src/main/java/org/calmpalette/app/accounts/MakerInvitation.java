package org.calmpalette.app.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Lets one more maker in. Gone once it is used. */
@Entity
@Table(name = "maker_invitation")
public class MakerInvitation {
    @Id
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 43)
    private String token;

    @Column(name = "made_by")
    private long madeBy;

    private LocalDateTime at;

    protected MakerInvitation() {}

    MakerInvitation(String token, long madeBy) {
        this.token = token;
        this.madeBy = madeBy;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    public String token() {
        return token;
    }

    long madeBy() {
        return madeBy;
    }

    /** In UTC. */
    public LocalDateTime at() {
        return at;
    }
}
