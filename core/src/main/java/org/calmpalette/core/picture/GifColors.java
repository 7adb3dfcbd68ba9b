package org.calmpalette.core.picture;

import java.util.Arrays;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;

/**
 * The colour tables of a GIF (GIF89a, sections 18 to 21); every pixel keeps its place in them, so pictures that move go on moving and
 * nothing is compressed anew.
 */
final class GifColors {
    private static final int HEADER = 13;
    private static final int TABLE = 0x80;
    private static final int EXTENSION = 0x21;
    private static final int IMAGE = 0x2c;
    private static final int TRAILER = 0x3b;

    private GifColors() {}

    /** @throws BadInputException if it is no GIF, or ends too early */
    static byte[] changed(String path, byte[] bytes, Tint tint) {
        byte[] out = bytes.clone();
        try {
            boolean gif = bytes[0] == 'G' && bytes[1] == 'I' && bytes[2] == 'F';
            int at = gif ? table(out, HEADER, out[10], tint) : broken(path);
            while ((out[at] & 255) != TRAILER) {
                int kind = out[at] & 255;
                if (kind == EXTENSION) {
                    at = blocks(out, at + 2);
                } else if (kind == IMAGE) {
                    // Ten bytes of place and flags, the picture's own table, and one byte that says how it is
                    // compressed.
                    at = blocks(out, table(out, at + 10, out[at + 9], tint) + 1);
                } else {
                    at = broken(path);
                }
            }
        } catch (ArrayIndexOutOfBoundsException tooShort) {
            broken(path);
        }
        if (Arrays.equals(out, bytes)) {
            throw new BadInputException(
                    path + " stays as it is: none of its colours changes.", "Choose other colours.");
        }
        return out;
    }

    /** Changes the table that the flags tell of. @return where it ends */
    private static int table(byte[] out, int at, byte flags, Tint tint) {
        if ((flags & TABLE) == 0) {
            return at;
        }
        int end = at + 3 * (2 << (flags & 7));
        for (int i = at; i < end; i += 3) {
            int[] b = tint.of(Color.rgb((out[i] & 255) / 255.0, (out[i + 1] & 255) / 255.0, (out[i + 2] & 255) / 255.0))
                    .bytes();
            out[i] = (byte) b[0];
            out[i + 1] = (byte) b[1];
            out[i + 2] = (byte) b[2];
        }
        return end;
    }

    /** @return behind the blocks that begin here, each with its length before it and the last one empty */
    private static int blocks(byte[] out, int from) {
        int at = from;
        while (out[at] != 0) {
            at += 1 + (out[at] & 255);
        }
        return at + 1;
    }

    private static int broken(String path) {
        throw new BadInputException(
                "The picture " + path + " cannot be read here: it is no whole GIF.",
                "Save it anew with a picture editor.");
    }
}
