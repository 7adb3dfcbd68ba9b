package org.calmpalette.core.background;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.OptionalDouble;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * What a picture says of its own size: CSS Images 3, section 4.1. A gradient says nothing.
 *
 * @param width in CSS px; empty if it has none
 * @param height in CSS px; empty if it has none
 * @param ratio width divided by height; empty if it has none
 */
public record NaturalSize(OptionalDouble width, OptionalDouble height, OptionalDouble ratio) {
    /** Of a gradient, and of an SVG without width, height and viewBox. */
    public static final NaturalSize NONE =
            new NaturalSize(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());

    /** Of a picture of pixels. A side of 0 makes a picture that is not drawn. */
    public static NaturalSize of(double width, double height) {
        return new NaturalSize(
                OptionalDouble.of(width),
                OptionalDouble.of(height),
                width > 0 && height > 0 ? OptionalDouble.of(width / height) : OptionalDouble.empty());
    }

    /** Of a picture with a ratio only, such as an SVG with a viewBox. */
    public static NaturalSize ofRatio(double ratio) {
        return new NaturalSize(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.of(ratio));
    }

    /** Of an SVG file: its {@code width} and {@code height} in px, and the ratio of its {@code viewBox}. SVG 2, section 8.12. */
    public static NaturalSize ofSvg(byte[] bytes) {
        Element svg = Jsoup.parse(new String(bytes, StandardCharsets.UTF_8), "", Parser.xmlParser())
                .selectFirst("svg");
        if (svg == null) {
            return NONE;
        }
        OptionalDouble width = px(svg.attr("width"));
        OptionalDouble height = px(svg.attr("height"));
        String[] box = svg.attr("viewBox").strip().split("[\\s,]+");
        OptionalDouble ratio = OptionalDouble.empty();
        if (width.isPresent() && height.isPresent()) {
            ratio = OptionalDouble.of(width.getAsDouble() / height.getAsDouble());
        } else if (box.length == 4 && px(box[2]).isPresent() && px(box[3]).isPresent()) {
            ratio = OptionalDouble.of(px(box[2]).getAsDouble() / px(box[3]).getAsDouble());
        }
        return new NaturalSize(width, height, ratio);
    }

    private static OptionalDouble px(String length) {
        try {
            double value =
                    Double.parseDouble(length.strip().toLowerCase(Locale.ROOT).replaceFirst("px$", ""));
            return value > 0 && value < 1e7 ? OptionalDouble.of(value) : OptionalDouble.empty();
        } catch (NumberFormatException other) {
            return OptionalDouble.empty();
        }
    }
}
