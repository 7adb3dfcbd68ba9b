package org.calmpalette.app.themes;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** What a browser measured of one page, packed; named by all that decides it. */
@Entity
@Table(name = "page_measures")
class PageMeasures {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "theme_id")
    private long themeId;

    @Column(name = "layout_key")
    private String layoutKey;

    private byte[] packed;
    /** Asked for in SQL only. */
    @SuppressWarnings("unused")
    private LocalDateTime at;

    protected PageMeasures() {}

    PageMeasures(long themeId, String layoutKey, byte[] packed) {
        this.themeId = themeId;
        this.layoutKey = layoutKey;
        this.packed = packed;
        this.at = LocalDateTime.now(ZoneOffset.UTC);
    }

    String layoutKey() {
        return layoutKey;
    }

    byte[] packed() {
        return packed;
    }
}
