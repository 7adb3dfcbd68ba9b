package org.calmpalette.app.storage;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Bytes, kept once under their SHA-256. Never changed. */
@Entity
@Table(name = "content")
class Content {
    @Id
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 64)
    private String hash;

    /** Asked for in SQL only. */
    @SuppressWarnings("unused")
    private long size;

    @JdbcTypeCode(SqlTypes.LONG32VARBINARY)
    private byte[] bytes;

    protected Content() {}

    byte[] bytes() {
        return bytes;
    }
}
