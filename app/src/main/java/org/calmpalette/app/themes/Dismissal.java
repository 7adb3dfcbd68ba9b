package org.calmpalette.app.themes;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** A finding that a maker has looked at and lets stand, with why. It stays dismissed until it is taken back. */
@Entity
@Table(name = "dismissal")
public class Dismissal {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "theme_id")
    private long themeId;

    @Column(name = "finding_key")
    private String findingKey;

    private String message;
    private String note;
    private String author;
    private LocalDateTime at;

    protected Dismissal() {}

    Dismissal(long themeId, String findingKey, String message, String note, String author) {
        this.themeId = themeId;
        this.findingKey = findingKey;
        this.message = message.length() > 500 ? message.substring(0, 500) : message;
        this.note = note;
        this.author = author;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    public String findingKey() {
        return findingKey;
    }

    /** What the finding said. */
    public String message() {
        return message;
    }

    public String note() {
        return note;
    }

    public String author() {
        return author;
    }

    public LocalDateTime at() {
        return at;
    }
}
