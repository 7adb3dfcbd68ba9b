package org.calmpalette.app.sites;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One owner's use of a theme. */
@Entity
public class Site {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String slug;
    private String name;

    @Column(name = "theme_id")
    private long themeId;

    @Column(name = "snapshot_id")
    private long snapshotId;

    @Column(name = "maker_id")
    private long makerId;

    @Column(name = "owner_id")
    private Long ownerId;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 43)
    private String invitation;

    @Column(name = "draft_id")
    private Long draftId;

    @Column(name = "live_id")
    private Long liveId;

    @Version
    private long version;

    protected Site() {}

    Site(String slug, String name, long themeId, long snapshotId, long makerId) {
        this.slug = slug;
        this.name = name;
        this.themeId = themeId;
        this.snapshotId = snapshotId;
        this.makerId = makerId;
    }

    public Long id() {
        return id;
    }

    /** The part of its address that names it. */
    public String slug() {
        return slug;
    }

    public String name() {
        return name;
    }

    public long themeId() {
        return themeId;
    }

    /** The snapshot of the theme that the next edition will use. */
    public long snapshotId() {
        return snapshotId;
    }

    public long makerId() {
        return makerId;
    }

    public Long ownerId() {
        return ownerId;
    }

    public String invitation() {
        return invitation;
    }

    public long draftId() {
        return draftId;
    }

    /** Id of the edition that visitors see, or null if it is not live yet. */
    public Long liveId() {
        return liveId;
    }

    /** Whether a text may be the name of a site in an address. */
    static boolean isSlug(String text) {
        return text.length() <= 60 && text.matches("[a-z0-9]+(-[a-z0-9]+)*");
    }

    /** Whether a text may be the token of an invitation: 32 bytes in base64url. */
    static boolean isInvitation(String text) {
        return text.matches("[A-Za-z0-9_-]{43}");
    }

    void handTo(long maker) {
        this.makerId = maker;
    }

    /** The maker has it back. */
    void takeBack() {
        this.ownerId = null;
    }

    void give(long owner) {
        this.ownerId = owner;
        this.invitation = null;
    }

    void invite(String token) {
        this.invitation = token;
    }

    void moveDraft(long draft) {
        this.draftId = draft;
    }

    void moveLive(long edition) {
        this.liveId = edition;
    }

    void useSnapshot(long snapshot) {
        this.snapshotId = snapshot;
    }
}
