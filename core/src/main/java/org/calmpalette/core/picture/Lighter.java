package org.calmpalette.core.picture;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.calmpalette.core.BadInputException;

/** Writes a picture anew, smaller or more compressed, in its own format. The same input gives the same bytes. */
public final class Lighter {
    /** Pixels of a picture that is written anew. */
    public static final long MOST_PIXELS = Pixels.LARGEST;
    /** Pixels that are in memory at once; of a larger picture every second, third … is read. */
    private static final long AT_ONCE = 25_000_000;

    /** What it was and what it becomes are in memory together. */
    private static final long MOST_EDITED = 16_000_000;

    /** acTL and IDAT as numbers. */
    private static final int ANIMATION_CONTROL = 0x6163544c;

    private static final int PIXELS = 0x49444154;
    private static final int EDITED = 90;
    private static final int COPIED = 82;
    private static final int LOWEST = 30;
    private static final int HIGHEST = 95;

    private Lighter() {}

    /** Whether a picture of this name can be written anew: JPEG, PNG and WebP. */
    public static boolean writes(String path) {
        return format(path).isPresent();
    }

    /** Whether a picture of this name can be given other colours: what is written anew, SVG and GIF. */
    public static boolean recolors(String path) {
        String lower = path.toLowerCase(Locale.ROOT);
        return writes(path) || lower.endsWith(".svg") || lower.endsWith(".gif");
    }

    /** Whether quality means something: JPEG and WebP, PNG keeps every pixel. */
    public static boolean compresses(String path) {
        return format(path).filter(f -> !f.equals("png")).isPresent();
    }

    private static Optional<String> format(String path) {
        String ending = path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return switch (ending) {
            case "jpg", "jpeg" -> Optional.of("jpeg");
            case "png" -> Optional.of("png");
            case "webp" -> Optional.of("webp");
            default -> Optional.empty();
        };
    }

    /**
     * @param path for its format and for messages
     * @param width in pixels, as the picture is shown; a picture that is narrower already keeps its width
     * @param quality 30 to 95, as JPEG and WebP have it; not used for PNG
     * @throws BadInputException if the picture cannot be read or written, or the numbers are out of their bounds
     */
    public static byte[] of(String path, byte[] bytes, int width, int quality) {
        return of(path, bytes, width, quality, known(path));
    }

    /**
     * The same picture as WebP (RFC 9649), which every browser of the last years shows: with what it lets through, and lighter than
     * JPEG and PNG at what looks the same. As {@link #of(String, byte[], int, int)} else.
     */
    public static byte[] asWebp(String path, byte[] bytes, int width, int quality) {
        known(path);
        return of(path, bytes, width, quality, "webp");
    }

    private static String known(String path) {
        return format(path)
                .orElseThrow(() -> new BadInputException(
                        path + " is neither a JPEG nor a PNG nor a WebP, and only these are written here.",
                        "Save it as one of these with a picture editor."));
    }

    private static byte[] of(String path, byte[] bytes, int width, int quality, String format) {
        check(width, quality);
        PictureSize size = PictureSize.read(bytes).orElseThrow(() -> unreadable(path));
        // A WebP is decoded whole before it is made coarser.
        long most = path.toLowerCase(Locale.ROOT).endsWith(".webp") ? Pixels.LARGEST_WEBP : MOST_PIXELS;
        if ((long) size.width() * size.height() > most) {
            throw new BadInputException(
                    path + " has more than " + most / 1_000_000 + " million pixels.",
                    "Make it smaller with a picture editor first.");
        }
        int every = (int) Math.ceil(Math.sqrt((double) size.width() * size.height() / AT_ONCE));
        if (every > 1 && size.width() / every < Math.min(width, size.width())) {
            throw new BadInputException(
                    path + " has " + size.width() + " by " + size.height()
                            + " pixels, too many to be kept at that width.",
                    "Choose a width of at most " + size.width() / every + " pixels.");
        }
        // One at a time: several at once would not fit into memory.
        synchronized (Lighter.class) {
            return written(path, bytes, width, quality, format, every);
        }
    }

    /**
     * Narrower copies of a picture, in its own format. It is read once.
     *
     * @param widths in pixels, each less than its own
     * @throws BadInputException if it cannot be read or written, or has more pixels than are changed at once
     */
    public static SortedMap<Integer, byte[]> copies(String path, byte[] bytes, List<Integer> widths) {
        String format = known(path);
        PictureSize size = PictureSize.read(bytes).orElseThrow(() -> unreadable(path));
        if ((long) size.width() * size.height() > MOST_EDITED) {
            throw new BadInputException(
                    path + " has more than " + MOST_EDITED / 1_000_000 + " million pixels.", "Make it lighter first.");
        }
        SortedMap<Integer, byte[]> all = new TreeMap<>();
        synchronized (Lighter.class) {
            try {
                BufferedImage image = upright(path, bytes, 1);
                // The widest first: each is made of the one before, which has enough pixels for it.
                for (int width : widths.stream()
                        .sorted(java.util.Comparator.reverseOrder())
                        .toList()) {
                    image = image.getWidth() > width ? scaled(image, width) : image;
                    all.put(width, Engine.written(image, format, COPIED));
                }
            } catch (IOException broken) {
                throw unreadable(path);
            }
        }
        return all;
    }

    /**
     * A picture with its pixels changed, in its own format; JPEG at a quality at which nobody sees that it was written twice.
     *
     * @throws BadInputException if it cannot be read or written, or has more pixels than are changed at once
     */
    public static byte[] edited(String path, byte[] bytes, PictureEdit edit) {
        if (edit instanceof PictureEdit.Recolored r && SvgDrawing.isSvg(bytes)) {
            return SvgColors.changed(path, bytes, r.tint());
        }
        if (edit instanceof PictureEdit.Recolored r
                && path.toLowerCase(Locale.ROOT).endsWith(".gif")) {
            return GifColors.changed(path, bytes, r.tint());
        }
        String format = known(path);
        PictureSize size = PictureSize.read(bytes).orElseThrow(() -> unreadable(path));
        if ((long) size.width() * size.height() > MOST_EDITED) {
            throw new BadInputException(
                    path + " has more than " + MOST_EDITED / 1_000_000 + " million pixels.", "Make it lighter first.");
        }
        synchronized (Lighter.class) {
            try {
                return Engine.written(edit.of(upright(path, bytes, 1)), format, EDITED);
            } catch (IOException broken) {
                throw unreadable(path);
            }
        }
    }

    /** Qualities that are tried one after the other until a picture is light enough. */
    private static final int[] QUALITIES = {82, 74, 66, 58, 50, 42, 34};

    /**
     * A picture cut and scaled, upright and with nothing that its camera wrote beside the pixels. Of one with very many pixels every
     * second, third … is read, as long as that leaves enough.
     *
     * @param name for messages
     * @param fitted no larger than what is cut out of it
     * @param format {@code jpeg}, {@code png} or {@code webp}; JPEG has white where the picture lets through
     * @param mostBytes 0 for any
     * @return empty if no quality is light enough
     * @throws BadInputException if it cannot be read or written, or has too many pixels
     */
    public static Optional<byte[]> fitted(
            String name, byte[] bytes, PictureEdit.Fitted fitted, String format, long mostBytes) {
        PictureSize size = PictureSize.read(bytes).orElseThrow(() -> unreadable(name));
        long pixels = (long) size.width() * size.height();
        long most = PictureFile.format(bytes).filter("webp"::equals).isPresent() ? Pixels.LARGEST_WEBP : MOST_PIXELS;
        double[] cut = fitted.cut(size.width(), size.height());
        int every = (int)
                Math.max(1, Math.min(Math.ceil(Math.sqrt((double) pixels / MOST_EDITED)), cut[2] / fitted.width()));
        if (pixels > most || pixels / every / every > AT_ONCE) {
            throw new BadInputException(
                    "“" + name + "” has " + pixels / 1_000_000 + " million pixels, more than are read here.",
                    "Make it smaller with a picture editor first.");
        }
        // One at a time: several at once would not fit into memory.
        synchronized (Lighter.class) {
            try {
                BufferedImage image = fitted.of(upright(name, bytes, every));
                BufferedImage plain = format.equals("jpeg") ? opaque(image) : image;
                for (int quality : format.equals("png") ? new int[] {HIGHEST} : QUALITIES) {
                    byte[] made = Engine.written(plain, format, quality);
                    if (mostBytes == 0 || made.length <= mostBytes) {
                        return Optional.of(made);
                    }
                }
                return Optional.empty();
            } catch (IOException broken) {
                throw unreadable(name);
            }
        }
    }

    private static BufferedImage opaque(BufferedImage image) {
        if (!image.getColorModel().hasAlpha()) {
            return image;
        }
        BufferedImage out = new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.setColor(java.awt.Color.WHITE);
        g.fillRect(0, 0, out.getWidth(), out.getHeight());
        g.drawImage(image, 0, 0, null);
        g.dispose();
        return out;
    }

    /** @throws BadInputException if the numbers are out of their bounds */
    public static void check(int width, int quality) {
        if (width < 1 || width > 20_000) {
            throw new BadInputException("A width of " + width + " pixels is none for a picture.", "Write 1 to 20000.");
        }
        if (quality < LOWEST || quality > HIGHEST) {
            throw new BadInputException(
                    "A quality of " + quality + " is out of bounds.",
                    "Write " + LOWEST + " to " + HIGHEST + "; 80 is a usual one.");
        }
    }

    private static byte[] written(String path, byte[] bytes, int width, int quality, String format, int every) {
        try {
            BufferedImage image = upright(path, bytes, every);
            return Engine.written(image.getWidth() > width ? scaled(image, width) : image, format, quality);
        } catch (IOException broken) {
            throw unreadable(path);
        }
    }

    /**
     * Of a picture that moves only the first of its pictures would be left: a PNG with an animation control chunk (PNG, third edition,
     * section 11.3.6), a WebP whose flags say so (RFC 9649, section 2.7).
     */
    static void checkStill(String path, byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 16), StandardCharsets.ISO_8859_1);
        boolean webp = start.startsWith("RIFF")
                && start.startsWith("WEBPVP8X", 8)
                && bytes.length > 20
                && (bytes[20] & 2) != 0;
        if (webp || start.startsWith("PNG", 1) && hasAnimationControl(bytes)) {
            throw new BadInputException(
                    path + " is a picture that moves, and only still ones are written here.",
                    "Leave it as it is, or bring a video or a still picture in its place.");
        }
    }

    /** Chunk by chunk up to the pixels: length, type, contents and a check of four bytes (PNG, third edition, section 5.3). */
    private static boolean hasAnimationControl(byte[] png) {
        ByteBuffer chunks = ByteBuffer.wrap(png);
        for (long at = 8; at + 8 <= png.length; ) {
            int type = chunks.getInt((int) at + 4);
            if (type == ANIMATION_CONTROL || type == PIXELS) {
                return type == ANIMATION_CONTROL;
            }
            at += 12 + Integer.toUnsignedLong(chunks.getInt((int) at));
        }
        return false;
    }

    /** What is written anew says nothing of how it is to be turned, so the pixels are turned. */
    private static BufferedImage upright(String path, byte[] bytes, int every) {
        checkStill(path, bytes);
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            ImageReader reader = Engine.reader(in).orElseThrow(() -> unreadable(path));
            try {
                reader.setInput(in, true, true);
                ImageReadParam param = reader.getDefaultReadParam();
                param.setSourceSubsampling(every, every, 0, 0);
                return Orientation.of(bytes).upright(reader.read(0, param));
            } finally {
                reader.dispose();
            }
        } catch (IOException | IllegalArgumentException broken) {
            throw unreadable(path);
        }
    }

    /** Halved as long as that leaves enough, then drawn bicubic: a large step at once would leave pixels out. */
    static BufferedImage scaled(BufferedImage image, int width) {
        return scaled(image, width, Math.max(1, Math.round(image.getHeight() * (float) width / image.getWidth())));
    }

    static BufferedImage scaled(BufferedImage image, int width, int height) {
        BufferedImage now = image;
        while (now.getWidth() >= 2 * width && now.getHeight() >= 2 * height) {
            now = PictureEdit.drawn(
                    now,
                    Math.max(width, now.getWidth() / 2),
                    Math.max(height, now.getHeight() / 2),
                    RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        }
        return now.getWidth() == width && now.getHeight() == height
                ? now
                : PictureEdit.drawn(now, width, height, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
    }

    private static BadInputException unreadable(String path) {
        return new BadInputException(
                "The picture " + path + " cannot be read here: it is broken, or in colours for print.",
                "Save it anew with a picture editor, in RGB.");
    }
}
