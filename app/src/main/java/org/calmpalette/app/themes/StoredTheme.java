package org.calmpalette.app.themes;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** A theme in its maker's room. Its state is the snapshot at its head; the head moves under an optimistic lock. */
@Entity
@Table(name = "theme")
public class StoredTheme {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @Column(name = "maker_id")
    private long makerId;

    @Column(name = "head_id")
    private Long headId;

    @Version
    private long version;

    @Column(name = "created_at")
    private LocalDateTime createdAt;

    protected StoredTheme() {}

    StoredTheme(String name, long makerId) {
        this.name = name;
        this.makerId = makerId;
        this.createdAt = LocalDateTime.now(ZoneOffset.UTC);
    }

    public Long id() {
        return id;
    }

    public String name() {
        return name;
    }

    public long makerId() {
        return makerId;
    }

    /** Id of the snapshot that is the theme's state. */
    public long headId() {
        return headId;
    }

    void handTo(long maker, String freeName) {
        this.makerId = maker;
        this.name = freeName;
    }

    void moveHead(long snapshotId) {
        this.headId = snapshotId;
    }
}
