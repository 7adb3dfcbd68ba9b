package org.calmpalette.app.sites;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import org.calmpalette.core.setting.OwnPicture;
import org.calmpalette.core.setting.Subject;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A picture that an owner brought. It belongs to the site and is never part of the theme. */
@Entity
@Table(name = "site_upload")
public class SiteUpload {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "site_id")
    private long siteId;

    private String path;
    private String name;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 64)
    private String hash;

    private long size;
    private int width;
    private int height;
    private String author;
    private LocalDateTime at;
    private boolean shelved;
    private String subject;

    protected SiteUpload() {}

    SiteUpload(long siteId, String path, String name, String hash, OwnPicture picture, String author) {
        this.siteId = siteId;
        this.path = path;
        this.name = name;
        this.hash = hash;
        this.size = picture.bytes().length;
        this.width = picture.width();
        this.height = picture.height();
        this.author = author;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
        this.shelved = true;
    }

    public Long id() {
        return id;
    }

    /** Where it is among the files of the site. */
    public String path() {
        return path;
    }

    /** Of the file that was brought. */
    public String name() {
        return name;
    }

    String hash() {
        return hash;
    }

    /** In bytes. */
    public long size() {
        return size;
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    public String author() {
        return author;
    }

    /** In UTC. */
    public LocalDateTime at() {
        return at;
    }

    /** What must stay in sight of it, if its owner has marked that. */
    public Optional<Subject> subject() {
        return Optional.ofNullable(subject).map(box -> Subject.boxed(path, "", box));
    }

    /** @param marked null for nothing */
    void mark(Subject marked) {
        this.subject = marked == null ? null : marked.box();
    }

    /** Whether it is offered; what is not stays for choices that name it. */
    boolean isShelved() {
        return shelved;
    }

    void shelve(boolean offered) {
        this.shelved = offered;
    }
}
