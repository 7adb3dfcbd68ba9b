package org.calmpalette.app.storage;

import java.nio.charset.StandardCharsets;
import org.calmpalette.core.Digest;

/** SHA-256, in lower-case hexadecimal digits. */
public final class Hash {
    private Hash() {}

    public static String of(byte[] bytes) {
        return new Digest().bytes(bytes).end();
    }

    public static String of(String text) {
        return of(text.getBytes(StandardCharsets.UTF_8));
    }
}
