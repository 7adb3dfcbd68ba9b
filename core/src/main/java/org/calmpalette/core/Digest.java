package org.calmpalette.core;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Stands for all that was put into it, in its order, by SHA-256: what differs has another one. */
public final class Digest {
    private final MessageDigest digest;

    public Digest() {
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** A text and its end, so that it is told apart from what comes next. */
    public Digest text(String text) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
        return this;
    }

    /** Bytes and nothing else. */
    public Digest bytes(byte[] bytes) {
        digest.update(bytes);
        return this;
    }

    /** How many there are, and each of them. */
    public Digest numbers(double... numbers) {
        ByteBuffer all = ByteBuffer.allocate(8 * numbers.length + 4).putInt(numbers.length);
        for (double n : numbers) {
            all.putDouble(n);
        }
        digest.update(all.array());
        return this;
    }

    /** In hexadecimal digits. */
    public String end() {
        return HexFormat.of().formatHex(digest.digest());
    }
}
