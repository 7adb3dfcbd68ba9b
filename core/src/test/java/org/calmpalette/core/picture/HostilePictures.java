package org.calmpalette.core.picture;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.ImageIO;

/** Pictures that are broken, that lie about themselves, or that cost far more than they weigh, by the name they come under. */
public final class HostilePictures {
    private HostilePictures() {}

    /** Each made when it is asked for. */
    public static Map<String, Supplier<byte[]>> all() {
        Map<String, Supplier<byte[]>> all = new LinkedHashMap<>();
        all.put("empty.png", () -> new byte[0]);
        all.put("one-byte.jpg", () -> new byte[] {(byte) 0xff});
        all.put("text.png", () -> "<!doctype html><script>alert(1)</script>".getBytes(StandardCharsets.UTF_8));
        all.put("zip.jpg", () -> ("PK\3\4" + "x".repeat(5000)).getBytes(StandardCharsets.ISO_8859_1));
        all.put("cut.jpg", () -> half(encoded("jpg")));
        all.put("cut.png", () -> half(encoded("png")));
        all.put("cut.gif", () -> half(encoded("gif")));
        for (String format : new String[] {"jpg", "png", "gif"}) {
            for (int seed = 0; seed < 12; seed++) {
                int s = seed;
                all.put("garbled-" + seed + "." + format, () -> garbled(encoded(format), s));
            }
        }
        all.put("only-a-header.png", () -> png(900, 600, 8, 2, new byte[0]));
        all.put("2-billion-pixels.png", () -> png(50_000, 43_000, 8, 6, new byte[0]));
        all.put("no-size.png", () -> png(0, 0, 8, 6, new byte[0]));
        all.put("negative.png", () -> png(-1, -1, 8, 6, new byte[0]));
        all.put("900-million-pixels-of-nothing.png", () -> png(30_000, 30_000, 1, 0, new byte[30_000 * 3_751]));
        all.put("profile-of-300-MB.png", () -> chunked("iCCP", "a\0\0", 300_000_000));
        all.put("text-of-300-MB.png", () -> chunked("zTXt", "a\0\0", 300_000_000));
        all.put("largest-of-its-kind.gif", () -> gif(65_535, 65_535, 1));
        all.put("5,000-frames.gif", () -> gif(4_000, 4_000, 5_000));
        all.put("65,500-by-65,500.jpg", () -> resized(encoded("jpg")));
        all.put("webp-of-nothing.webp", () -> "RIFF\20\0\0\0WEBPVP8 \4\0\0\0abcd"
                .getBytes(StandardCharsets.ISO_8859_1));
        all.put("avif-of-a-header.avif", () -> "\0\0\0\34ftypavif\0\0\0\0avifmif1"
                .getBytes(StandardCharsets.ISO_8859_1));
        all.put("script.svg", () -> svg("<g>\n<script>alert(1)</script></g>"));
        all.put("handler.svg", () -> svg("<path\n d='M0 0h9v9z' onload='alert(1)'/>"));
        all.put(
                "page-inside.svg",
                () -> svg("<foreignObject><body xmlns='http://www.w3.org/1999/xhtml'/></foreignObject>"));
        all.put("elsewhere.svg", () -> svg("<image xlink:href='https://pics.example/a.png'/>"));
        all.put("elsewhere-in-style.svg", () -> svg("<style>@import '//pics.example/a.css';</style>"));
        all.put("elsewhere-in-fill.svg", () -> svg("<path fill='url(//pics.example/a.svg#b)'/>"));
        all.put("set-to-a-script.svg", () -> svg("<a><set attributeName='xlink:href' to='javascript:alert(1)'/></a>"));
        all.put("svg-in-svg.svg", () -> svg("<image href='data:image/svg+xml;base64,PHN2Zz4='/>"));
        all.put(
                "a-billion-laughs.svg",
                () -> ("<!DOCTYPE svg [<!ENTITY a 'ha'><!ENTITY b '&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;'>]>"
                                + "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><text>&b;</text></svg>")
                        .getBytes(StandardCharsets.UTF_8));
        all.put("doubled-30-times.svg", () -> svg(doubled()));
        all.put("50,000-deep.svg", () -> svg("<g>".repeat(50_000)));
        all.put("30-MB.svg", () -> svg("<path d='M0 0h9v9z'/>".repeat(1_400_000)));
        all.put("a-million-wide.svg", () -> "<svg xmlns='http://www.w3.org/2000/svg' width='999999' height='999999'/>"
                .getBytes(StandardCharsets.UTF_8));
        return all;
    }

    private static byte[] svg(String inside) {
        return ("<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='9' height='9'>"
                        + inside + "</svg>")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static String doubled() {
        StringBuilder out = new StringBuilder("<path id='u0' d='M0 0h9v9z'/>");
        for (int i = 0; i < 30; i++) {
            out.append("<g id='u%d'><use href='#u%d'/><use href='#u%d'/></g>".formatted(i + 1, i, i));
        }
        return out.toString();
    }

    static byte[] encoded(String format) {
        BufferedImage image = new BufferedImage(90, 60, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < 90 * 60; i++) {
            image.setRGB(i % 90, i / 90, i * 7919);
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, format, out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] half(byte[] bytes) {
        return Arrays.copyOf(bytes, bytes.length / 2);
    }

    private static byte[] garbled(byte[] bytes, int seed) {
        Random random = new Random(seed);
        for (int i = 0; i < 1 + bytes.length / 40; i++) {
            bytes[4 + random.nextInt(bytes.length - 4)] = (byte) random.nextInt(256);
        }
        return bytes;
    }

    /** A JPEG that says it is as large as a JPEG can be: ITU-T T.81, B.2.2, height and width of the frame header. */
    private static byte[] resized(byte[] jpeg) {
        for (int i = 0; i < jpeg.length - 9; i++) {
            if ((jpeg[i] & 255) == 0xff && (jpeg[i + 1] & 255) == 0xc0) {
                jpeg[i + 5] = jpeg[i + 7] = (byte) 0xff;
                jpeg[i + 6] = jpeg[i + 8] = (byte) 0xdc;
            }
        }
        return jpeg;
    }

    private static byte[] png(int width, int height, int depth, int type, byte[] data) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10});
        out.writeBytes(chunk("IHDR", header(width, height, depth, type)));
        if (data.length > 0) {
            out.writeBytes(chunk("IDAT", deflated("", data.length)));
        }
        out.writeBytes(chunk("IEND", new byte[0]));
        return out.toByteArray();
    }

    private static byte[] header(int width, int height, int depth, int type) {
        return ByteBuffer.allocate(13)
                .putInt(width)
                .putInt(height)
                .put((byte) depth)
                .put((byte) type)
                .array();
    }

    /** A small picture with a chunk of zeros that is long when it is inflated. */
    private static byte[] chunked(String name, String start, int zeros) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10});
        out.writeBytes(chunk("IHDR", header(8, 8, 8, 0)));
        out.writeBytes(chunk(name, deflated(start, zeros)));
        out.writeBytes(chunk("IDAT", deflated("", 72)));
        out.writeBytes(chunk("IEND", new byte[0]));
        return out.toByteArray();
    }

    private static byte[] deflated(String start, int zeros) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(start.getBytes(StandardCharsets.ISO_8859_1));
        byte[] some = new byte[1 << 16];
        try (DeflaterOutputStream packed = new DeflaterOutputStream(out)) {
            for (int left = zeros; left > 0; left -= some.length) {
                packed.write(some, 0, Math.min(left, some.length));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] chunk(String name, byte[] data) {
        byte[] type = name.getBytes(StandardCharsets.ISO_8859_1);
        CRC32 crc = new CRC32();
        crc.update(type);
        crc.update(data);
        return ByteBuffer.allocate(12 + data.length)
                .putInt(data.length)
                .put(type)
                .put(data)
                .putInt((int) crc.getValue())
                .array();
    }

    /** Frames of one pixel on a large screen: GIF89a, sections 18 to 22. */
    private static byte[] gif(int width, int height, int frames) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes("GIF89a".getBytes(StandardCharsets.ISO_8859_1));
        out.writeBytes(
                new byte[] {(byte) width, (byte) (width >> 8), (byte) height, (byte) (height >> 8), (byte) 0x80, 0, 0});
        out.writeBytes(new byte[6]);
        for (int i = 0; i < frames; i++) {
            out.writeBytes(new byte[] {',', 0, 0, 0, 0, 1, 0, 1, 0, 0, 2, 2, 0x44, 1, 0});
        }
        out.write(';');
        return out.toByteArray();
    }
}
