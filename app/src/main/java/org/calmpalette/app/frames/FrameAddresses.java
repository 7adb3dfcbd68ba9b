package org.calmpalette.app.frames;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * Addresses of previews. A stranger's page in a sandboxed frame sends no cookies, so its address itself has to show
 * that somebody who may see it asked for it: it names what is shown, until when, and carries a signature.
 */
@Component
public class FrameAddresses {
    /**
     * What a preview shows: a theme's snapshot with its defaults, a site's draft, one of its editions, or what a link leads to.
     *
     * @param variation of a snapshot that is shown with another value of a setting: which of its variations; else 0
     */
    public record Shown(char kind, long id, int variation) {
        public static final char SNAPSHOT = 't';
        public static final char VARIATION = 'v';
        public static final char DRAFT = 'd';
        static final char EDITION = 'e';
        /** By a link that an owner handed out. */
        public static final char HAND = 'h';
    }

    private final JdbcClient database;
    private volatile SecretKeySpec key;

    FrameAddresses(JdbcClient database) {
        this.database = database;
    }

    /** Address of a preview of a snapshot, up to and without the page's path. */
    public String ofSnapshot(long snapshotId) {
        return address(Shown.SNAPSHOT, snapshotId);
    }

    /** Of a snapshot with another value of a setting. @param variation which of those that the theme has, from 0 */
    public String ofVariation(long snapshotId, int variation) {
        return address(Shown.VARIATION, snapshotId, today(), "-" + variation);
    }

    public String ofDraft(long draftId) {
        return address(Shown.DRAFT, draftId);
    }

    /** Of what went live once, as it was then. */
    public String ofEdition(long editionId) {
        return address(Shown.EDITION, editionId);
    }

    /** Of a draft in the hand. @param until in seconds of the epoch */
    public String ofHand(long linkId, long until) {
        return address(Shown.HAND, linkId, until);
    }

    private String address(char kind, long id) {
        return address(kind, id, today());
    }

    /** To the end of the next day, so that the same thing has the same address for hours and is cached. */
    private static long today() {
        return Instant.now()
                .truncatedTo(ChronoUnit.DAYS)
                .plus(2, ChronoUnit.DAYS)
                .getEpochSecond();
    }

    private String address(char kind, long id, long until) {
        return address(kind, id, until, "");
    }

    private String address(char kind, long id, long until, String more) {
        String what = kind + "" + id + "-" + Long.toString(until, 36) + more;
        return "/frame/" + what + "-" + signature(what) + "/";
    }

    /** What a token from an address shows; empty if it was not made here or is over. */
    public Optional<Shown> read(String token) {
        int cut = token.length() - 43;
        if (cut < 4 || token.charAt(cut - 1) != '-') {
            return Optional.empty();
        }
        String what = token.substring(0, cut - 1);
        byte[] given = token.substring(cut).getBytes(StandardCharsets.US_ASCII);
        if (!MessageDigest.isEqual(given, signature(what).getBytes(StandardCharsets.US_ASCII))) {
            return Optional.empty();
        }
        String[] parts = what.substring(1).split("-");
        // The signature is ours, so the parts are well formed.
        if (Instant.now().getEpochSecond() > Long.parseLong(parts[1], 36)) {
            return Optional.empty();
        }
        return Optional.of(
                new Shown(what.charAt(0), Long.parseLong(parts[0]), parts.length > 2 ? Integer.parseInt(parts[2]) : 0));
    }

    private String signature(String what) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(key());
            return Base64.getUrlEncoder()
                    .withoutPadding()
                    .encodeToString(mac.doFinal(what.getBytes(StandardCharsets.US_ASCII)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has HmacSHA256", e);
        }
    }

    private SecretKeySpec key() {
        if (key == null) {
            byte[] fresh = new byte[32];
            new SecureRandom().nextBytes(fresh);
            // Whichever node comes first makes the key; all read the one that is there then.
            database.sql("insert ignore into signing_key (id, key_bytes) values (1, ?)")
                    .param(fresh)
                    .update();
            byte[] kept = (byte[]) database.sql("select key_bytes from signing_key where id = 1")
                    .query()
                    .singleValue();
            key = new SecretKeySpec(kept, "HmacSHA256");
        }
        return key;
    }
}
