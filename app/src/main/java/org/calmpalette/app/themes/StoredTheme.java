package org.calmpalette.app.themes;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.Set;

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

    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "theme_maker", joinColumns = @JoinColumn(name = "theme_id"))
    @Column(name = "account_id")
    private Set<Long> others = new LinkedHashSet<>();

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

    /** Who works on it beside the maker whose it is, by account. */
    public Set<Long> others() {
        return Collections.unmodifiableSet(others);
    }

    void add(long maker) {
        if (maker != makerId) {
            others.add(maker);
        }
    }

    void leave(long maker) {
        others.remove(maker);
    }

    void handTo(long maker, String freeName) {
        this.makerId = maker;
        this.name = freeName;
        others.remove(maker);
    }

    void moveHead(long snapshotId) {
        this.headId = snapshotId;
    }
}
