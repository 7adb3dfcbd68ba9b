package org.calmpalette.app.themes;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Objects;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A theme's whole state after one change, with the note that goes with it. */
@Entity
public class Snapshot {
    static final int LONGEST_NOTE = 500;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "theme_id")
    private long themeId;

    @Column(name = "parent_id")
    private Long parentId;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(name = "tree_hash", length = 64)
    private String treeHash;

    private String note;
    private String author;
    private LocalDateTime at;

    @Column(name = "point_name")
    private String pointName;

    @Column(name = "given_out")
    private String givenOut;

    private boolean joined;

    /** Null until it was counted; see {@link Kept}. */
    private Long added;

    protected Snapshot() {}

    Snapshot(long themeId, Long parentId, String treeHash, String note, String author, long added) {
        this.added = added;
        this.themeId = themeId;
        this.parentId = parentId;
        this.treeHash = treeHash;
        this.note = note.length() > LONGEST_NOTE ? note.substring(0, LONGEST_NOTE - 1) + "…" : note;
        this.author = author;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    public Long id() {
        return id;
    }

    public long themeId() {
        return themeId;
    }

    public Long parentId() {
        return parentId;
    }

    public String treeHash() {
        return treeHash;
    }

    public String note() {
        return note;
    }

    public String author() {
        return author;
    }

    /** In UTC. */
    public LocalDateTime at() {
        return at;
    }

    /** Name of the restore point, or null if it is none. */
    public String pointName() {
        return pointName;
    }

    /** Why it goes out though promises are broken; null where nobody has said so. */
    public String givenOut() {
        return givenOut;
    }

    void giveOut(String why) {
        this.givenOut = why;
    }

    /** Whether it stands for several changes, since what lay between has been removed. */
    public boolean joined() {
        return joined;
    }

    /** Bytes that it keeps and the one before it did not; null where nobody has counted yet. */
    Long added() {
        return added;
    }

    /** What lies between it and another one goes. */
    void follow(Long parent, long more) {
        this.joined |= !Objects.equals(parent, parentId);
        this.parentId = parent;
        this.added = more;
    }

    void name(String name) {
        this.pointName = name;
    }
}
