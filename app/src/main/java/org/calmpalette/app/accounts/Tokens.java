package org.calmpalette.app.accounts;

import java.security.SecureRandom;
import java.util.Base64;

/** What stands in a link that opens something: 32 random bytes in base64url, which nobody can guess. */
public final class Tokens {
    private static final SecureRandom RANDOM = new SecureRandom();

    private Tokens() {}

    public static String random() {
        byte[] token = new byte[32];
        RANDOM.nextBytes(token);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(token);
    }

    public static boolean isToken(String text) {
        return text.matches("[A-Za-z0-9_-]{43}");
    }
}
