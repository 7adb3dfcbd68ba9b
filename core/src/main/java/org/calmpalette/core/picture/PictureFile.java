package org.calmpalette.core.picture;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Paths;

/** The one door through which pictures and videos of strangers come: a file is what its bytes are, whatever its name says. */
public final class PictureFile {
    /** Bytes of a file that is brought in. */
    public static final int LARGEST = 32_000_000;

    private PictureFile() {}

    /**
     * The format of some bytes, told by their first ones: {@code png}, {@code jpg}, {@code gif}, {@code bmp}, {@code webp},
     * {@code avif}, {@code svg}, {@code mp4}, {@code webm} or {@code ogv} (MIME Sniffing Standard, section 6; AVIF 1.1, section 2).
     */
    public static Optional<String> format(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 64), StandardCharsets.ISO_8859_1);
        if (start.startsWith("\u0089PNG\r\n\u001a\n")) {
            return Optional.of("png");
        }
        if (start.startsWith("\u00ff\u00d8\u00ff")) {
            return Optional.of("jpg");
        }
        if (start.startsWith("GIF87a") || start.startsWith("GIF89a")) {
            return Optional.of("gif");
        }
        if (start.startsWith("RIFF") && start.startsWith("WEBP", 8)) {
            return Optional.of("webp");
        }
        if (start.startsWith("ftyp", 4)) {
            return Optional.of(start.substring(8).contains("avif") ? "avif" : "mp4");
        }
        if (start.startsWith("\u001aE\u00df\u00a3")) {
            return Optional.of("webm");
        }
        if (start.startsWith("OggS")) {
            return Optional.of("ogv");
        }
        if (SvgDrawing.isSvg(bytes)) {
            return Optional.of("svg");
        }
        return start.startsWith("BM") ? Optional.of("bmp") : Optional.empty();
    }

    /**
     * Refuses what is no picture that can be read.
     *
     * @param name for the message
     * @return its size in px, as shown
     * @throws BadInputException if it is too large, broken, or a drawing that runs something
     */
    public static PictureSize picture(String name, byte[] bytes) {
        sized(name, bytes);
        if (SvgSafety.isSvg(bytes)) {
            SvgSafety.check("“" + name + "”", bytes);
        }
        return PictureSize.read(bytes)
                .orElseThrow(
                        () -> new BadInputException(Language.say("own.broken", name), Language.say("own.broken.mend")));
    }

    /**
     * Refuses what is no picture or video of the format that its name says.
     *
     * @throws BadInputException if it is none
     */
    public static void named(String name, byte[] bytes) {
        sized(name, bytes);
        Optional<String> is = format(bytes);
        String said = Paths.ending(name).replace("jpeg", "jpg");
        if (is.isEmpty()) {
            throw new BadInputException(
                    "“" + name + "” is no " + said.toUpperCase(Locale.ROOT)
                            + ": its first bytes are those of no picture or video that is known.",
                    "Save it anew with a picture editor, or leave it out.");
        }
        if (!is.get().equals(said)) {
            throw new BadInputException(
                    "“" + name + "” is a " + is.get().toUpperCase(Locale.ROOT) + ", whatever its name says.",
                    "Name it ." + is.get() + ", or save it anew as " + said.toUpperCase(Locale.ROOT) + ".");
        }
        if (is.get().equals("svg")) {
            SvgSafety.check("“" + name + "”", bytes);
        }
    }

    private static void sized(String name, byte[] bytes) {
        if (bytes.length > LARGEST) {
            throw new BadInputException(
                    Language.say("own.large", name, LARGEST / 1_000_000), Language.say("own.large.mend"));
        }
    }
}
