package org.calmpalette.core.picture;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Iterator;
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

    /** Empty if the bytes are no picture of a kind that is known here: PNG, JPEG, GIF, BMP or SVG with a size. */
    public static Optional<PictureSize> read(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 512), java.nio.charset.StandardCharsets.ISO_8859_1);
        if (start.toLowerCase(Locale.ROOT).contains("<svg") || start.startsWith("<?xml")) {
            return svg(new String(bytes, java.nio.charset.StandardCharsets.UTF_8));
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return Optional.empty();
            }
            ImageReader reader = readers.next();
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
