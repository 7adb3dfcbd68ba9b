package org.calmpalette.app.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Somebody who may sign in. */
@Entity
@Table(name = "account")
public class Account {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "sign_in")
    private String accountName;

    private String name;

    @Column(name = "password_hash")
    private String passwordHash;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Role role;

    private boolean demo;

    /** See {@link Lookalike}; asked for in SQL only. */
    @SuppressWarnings("unused")
    private String likeness;

    @Column(name = "created_at")
    private LocalDateTime createdAt;

    protected Account() {}

    Account(String signIn, String name, String passwordHash, Role role, boolean demo) {
        this.accountName = signIn;
        this.name = name;
        this.passwordHash = passwordHash;
        this.role = role;
        this.demo = demo;
        this.likeness = Lookalike.of(signIn);
        this.createdAt = LocalDateTime.now(ZoneOffset.UTC);
    }

    public Long id() {
        return id;
    }

    public String signIn() {
        return accountName;
    }

    public String name() {
        return name;
    }

    void setName(String called) {
        this.name = called;
    }

    String passwordHash() {
        return passwordHash;
    }

    void setPasswordHash(String hash) {
        this.passwordHash = hash;
    }

    public Role role() {
        return role;
    }

    /** Of accounts that were made before names were compared so. */
    void setLikeness() {
        this.likeness = Lookalike.of(accountName);
    }

    boolean isDemo() {
        return demo;
    }
}
