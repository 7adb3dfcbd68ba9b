package org.calmpalette.app.sites;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Version;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.Set;
import org.calmpalette.app.accounts.SignedIn;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** The use that its owners make of a theme. */
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

    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "site_owner", joinColumns = @JoinColumn(name = "site_id"))
    @Column(name = "account_id")
    private Set<Long> owners = new LinkedHashSet<>();

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 43)
    private String invitation;

    @Column(name = "invited_until")
    private LocalDateTime invitedUntil;

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

    /** Who has it, by account; its maker has it while nobody else does. */
    public Set<Long> owners() {
        return Collections.unmodifiableSet(owners);
    }

    public boolean isKept() {
        return owners.isEmpty();
    }

    boolean isOf(SignedIn person) {
        return isKept() ? makerId == person.id() : owners.contains(person.id());
    }

    /** The token of the invitation that is open; null if none is. */
    public String invitation() {
        return isInviting() ? invitation : null;
    }

    /** Until when the invitation is open, in UTC; null if there is none. */
    public LocalDateTime invitedUntil() {
        return isInviting() ? invitedUntil : null;
    }

    private boolean isInviting() {
        return invitation != null && LocalDateTime.now(ZoneOffset.UTC).isBefore(invitedUntil);
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

    void handTo(long maker) {
        this.makerId = maker;
    }

    void add(long owner) {
        owners.add(owner);
    }

    /** Once nobody owns it any more it is its maker's again. */
    void leave(long owner) {
        owners.remove(owner);
    }

    /** @param until in UTC */
    void invite(String token, LocalDateTime until) {
        this.invitation = token;
        this.invitedUntil = until;
    }

    void withdrawInvitation() {
        this.invitation = null;
        this.invitedUntil = null;
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
