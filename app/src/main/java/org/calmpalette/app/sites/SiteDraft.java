package org.calmpalette.app.sites;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** All choices of an owner after one change. Never altered; undo moves the site to the one before. */
@Entity
@Table(name = "site_draft")
class SiteDraft {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "site_id")
    private long siteId;

    @Column(name = "parent_id")
    private Long parentId;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    private String choices;

    private String note;
    private String author;
    private LocalDateTime at;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "page_token", length = 16)
    private String pageToken;

    @Column(name = "page_turn")
    private Integer pageTurn;

    protected SiteDraft() {}

    SiteDraft(long siteId, Long parentId, String choices, String note, String author) {
        this.siteId = siteId;
        this.parentId = parentId;
        this.choices = choices;
        this.note = note;
        this.author = author;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    /** From here on it is known which window made it. */
    SiteDraft by(FromWindow from) {
        this.pageToken = from.token();
        this.pageTurn = from.turn();
        return this;
    }

    /** Whether a window made it, as its n-th change at least. */
    boolean isBy(String token, int turn) {
        return token.equals(pageToken) && pageTurn >= turn;
    }

    Long id() {
        return id;
    }

    long siteId() {
        return siteId;
    }

    Long parentId() {
        return parentId;
    }

    String choices() {
        return choices;
    }

    String note() {
        return note;
    }

    String author() {
        return author;
    }

    /** In UTC. */
    LocalDateTime at() {
        return at;
    }
}
