package org.calmpalette.app.storage;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256, in lower-case hexadecimal digits. */
public final class Hash {
    private Hash() {}

    public static String of(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    public static String of(String text) {
        return of(text.getBytes(StandardCharsets.UTF_8));
    }
}
