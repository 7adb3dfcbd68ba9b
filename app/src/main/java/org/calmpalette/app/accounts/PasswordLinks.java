package org.calmpalette.app.accounts;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import org.calmpalette.app.storage.Hash;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * Links by which somebody who has forgotten a password writes another one. One of a person holds at a time; each works once and ends by
 * itself. Only the hash of what stands in one is kept, so that nobody who reads the database can use it.
 */
@Component
class PasswordLinks {
    private final JdbcClient database;

    PasswordLinks(JdbcClient database) {
        this.database = database;
    }

    private static LocalDateTime now() {
        return LocalDateTime.now(ZoneOffset.UTC);
    }

    String make(long account, int hours) {
        String token = Tokens.random();
        database.sql("replace into password_link (token_hash, account_id, until) values (?, ?, ?)")
                .params(Hash.of(token), account, now().plusHours(hours))
                .update();
        return token;
    }

    Optional<Long> account(String token) {
        return Tokens.isToken(token)
                ? database.sql("select account_id from password_link where token_hash = ? and until > ?")
                        .params(Hash.of(token), now())
                        .query(Long.class)
                        .optional()
                : Optional.empty();
    }

    /** @return whether it could be used still */
    boolean use(String token) {
        return database.sql("delete from password_link where token_hash = ? and until > ?")
                        .params(Hash.of(token), now())
                        .update()
                == 1;
    }
}
