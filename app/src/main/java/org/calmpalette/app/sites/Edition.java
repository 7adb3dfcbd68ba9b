package org.calmpalette.app.sites;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What went live, and when. Never altered. */
@Entity
public class Edition {
    /** Characters of a word that somebody gives an edition. */
    public static final int LONGEST_WORD = 200;

    private static final int LONGEST_CHANGED = 600;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "site_id")
    private long siteId;

    private int number;

    @Column(name = "snapshot_id")
    private long snapshotId;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    private String choices;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    @Column(name = "palette_css")
    private String paletteCss;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "palette_hash", length = 64)
    private String paletteHash;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "live_tree", length = 64)
    private String liveTree;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "files_hash", length = 24)
    private String filesHash;

    private String note;
    private String changed;
    private String word;
    private String author;
    private LocalDateTime at;

    protected Edition() {}

    Edition(
            long siteId,
            int number,
            long snapshotId,
            String choices,
            String paletteCss,
            String paletteHash,
            String note,
            String changed,
            String word,
            String author) {
        this.changed = changed.length() > LONGEST_CHANGED ? changed.substring(0, LONGEST_CHANGED - 1) + "…" : changed;
        this.word = word;
        this.siteId = siteId;
        this.number = number;
        this.snapshotId = snapshotId;
        this.choices = choices;
        this.paletteCss = paletteCss;
        this.paletteHash = paletteHash;
        this.note = note;
        this.author = author;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    public Long id() {
        return id;
    }

    long siteId() {
        return siteId;
    }

    public int number() {
        return number;
    }

    public long snapshotId() {
        return snapshotId;
    }

    /** What visitors get: a tree in which pages are filled and linked; null for editions from before this was kept. */
    String liveTree() {
        return liveTree;
    }

    /** Whether what visitors got of it was let go of. */
    boolean isReleased() {
        return liveTree == null && filesHash != null;
    }

    void build(String tree, String files) {
        this.liveTree = tree;
        this.filesHash = files;
    }

    String choices() {
        return choices;
    }

    public String paletteCss() {
        return paletteCss;
    }

    public String paletteHash() {
        return paletteHash;
    }

    public String note() {
        return note;
    }

    /** What it made otherwise than the one before, in words; may be empty. */
    public String changed() {
        return changed;
    }

    /** A word to find it again by; may be empty. */
    public String word() {
        return word;
    }

    public String author() {
        return author;
    }

    /** In UTC. */
    public LocalDateTime at() {
        return at;
    }
}
