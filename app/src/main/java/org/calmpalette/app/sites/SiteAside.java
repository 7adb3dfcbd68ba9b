package org.calmpalette.app.sites;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Map;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Value;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What lost where two windows wrote the same. Its owner takes it or lets it go. */
@Entity
@Table(name = "site_aside")
class SiteAside {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "site_id")
    private long siteId;

    @Column(name = "setting_key")
    private String settingKey;

    private String band;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    @Column(name = "value")
    private String written;

    private String author;
    private LocalDateTime at;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "page_token", length = 16)
    private String pageToken;

    @Column(name = "page_turn")
    private Integer pageTurn;

    protected SiteAside() {}

    SiteAside(long siteId, String settingKey, String band, Value value, String author, LocalDateTime at) {
        this.siteId = siteId;
        this.settingKey = settingKey;
        this.band = band;
        this.written = Chosen.writeAll(Map.of("v", Chosen.of(value)));
        this.author = author;
        this.at = at;
    }

    /** Of a choice that was sent and lost: which one it was, so that it loses once. */
    SiteAside by(FromWindow from) {
        this.pageToken = from.token();
        this.pageTurn = from.turn();
        return this;
    }

    Long id() {
        return id;
    }

    long siteId() {
        return siteId;
    }

    String settingKey() {
        return settingKey;
    }

    /** Key of the band that it was for, or empty. */
    String band() {
        return band;
    }

    Value value() {
        return Chosen.readAll(written.getBytes(StandardCharsets.UTF_8), "what was put aside")
                .get("v")
                .everywhere();
    }

    String author() {
        return author;
    }

    /** In UTC. */
    LocalDateTime at() {
        return at;
    }
}
