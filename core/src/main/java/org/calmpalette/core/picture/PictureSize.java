package org.calmpalette.core.picture;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * Width and height of a picture in its own pixels, read from its header; the picture itself is not decoded, so that a
 * huge one costs nothing. A photograph that is shown turned has the width and height that it is shown with.
 */
public record PictureSize(int width, int height) {
    /** Bytes at the start of a file that its properties lie in; what comes after is the picture itself. */
    private static final int HEADER = 65_536;

    /** Empty if the bytes are no picture of a kind that is known here: PNG, JPEG, GIF, BMP, WebP, AVIF or SVG with a size. */
    public static Optional<PictureSize> read(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 512), java.nio.charset.StandardCharsets.ISO_8859_1);
        if (SvgDrawing.isSvg(bytes)) {
            // The size is told by the first tag; a tree of the whole file would be many times as large as the file.
            return svg(new String(bytes, 0, Math.min(bytes.length, HEADER), java.nio.charset.StandardCharsets.UTF_8));
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            ImageReader reader = Engine.reader(in).orElse(null);
            if (reader == null) {
                return avif(bytes, start);
            }
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                return Optional.of(
                        Orientation.of(bytes).isTurned()
                                ? new PictureSize(height, width)
                                : new PictureSize(width, height));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException broken) {
            // ImageIO's readers throw all sorts at broken files.
            return Optional.empty();
        }
    }

    /**
     * The largest image of the file: an AVIF holds its alpha and previews as images of their own. AV1 Image File Format 1.1, section
     * 2, on ISO/IEC 23008-12, section 6.5.3 (image spatial extents, in pixels before any turn).
     */
    private static Optional<PictureSize> avif(byte[] bytes, String start) {
        if (!start.startsWith("ftyp", 4) || !start.substring(8).contains("avif")) {
            return Optional.empty();
        }
        PictureSize largest = null;
        for (int i = 8; i + 16 <= Math.min(bytes.length, HEADER); i++) {
            boolean extents = bytes[i] == 'i' && bytes[i + 1] == 's' && bytes[i + 2] == 'p' && bytes[i + 3] == 'e';
            if (extents && number(bytes, i - 4) == 20) {
                int width = number(bytes, i + 8);
                int height = number(bytes, i + 12);
                boolean larger = largest == null || (long) width * height > (long) largest.width() * largest.height();
                if (width > 0 && height > 0 && larger) {
                    largest = new PictureSize(width, height);
                }
            }
        }
        return Optional.ofNullable(largest);
    }

    private static int number(byte[] bytes, int at) {
        return (bytes[at] & 255) << 24 | (bytes[at + 1] & 255) << 16 | (bytes[at + 2] & 255) << 8 | bytes[at + 3] & 255;
    }

    private static Optional<PictureSize> svg(String text) {
        Element svg = Jsoup.parse(text, "", Parser.xmlParser()).selectFirst("svg");
        if (svg == null) {
            return Optional.empty();
        }
        Optional<Double> width = pixels(svg.attr("width"));
        Optional<Double> height = pixels(svg.attr("height"));
        String[] box = svg.attr("viewBox").strip().split("[\\s,]+");
        if ((width.isEmpty() || height.isEmpty()) && box.length == 4) {
            width = pixels(box[2]);
            height = pixels(box[3]);
        }
        if (width.isEmpty() || height.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new PictureSize((int) Math.round(width.get()), (int) Math.round(height.get())));
    }

    private static Optional<Double> pixels(String length) {
        String number = length.strip().toLowerCase(Locale.ROOT).replaceFirst("px$", "");
        try {
            return Optional.of(Double.valueOf(number)).filter(v -> v > 0 && v < 1e6);
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }
}
