package org.calmpalette.app.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDateTime;

/** A sign-in that failed. */
@Entity
@Table(name = "sign_in_attempt")
class SignInAttempt {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Column(name = "sign_in")
    private String accountName;

    /** Asked for in SQL only. */
    @SuppressWarnings("unused")
    private String address;
    /** Asked for in SQL only. */
    @SuppressWarnings("unused")
    private LocalDateTime at;

    protected SignInAttempt() {}

    SignInAttempt(String signIn, String address, LocalDateTime at) {
        this.accountName = signIn;
        this.address = address;
        this.at = at;
    }
}
