package org.calmpalette.core.picture;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;

/**
 * A thin picture that is laid side by side for a gradient or for lines, with the CSS gradient that shows the same.
 *
 * @param down whether its colours change from top to bottom; else from left to right
 * @param length in that direction, 1 to {@value #LONGEST} px
 * @param across px in the other one, 1 to {@value #WIDEST}; one is enough
 * @param stops at least one; between two of them the colours run over, in sRGB and premultiplied as CSS Images 3, section 3.4.2, has it
 */
public record Strip(boolean down, int length, int across, List<Stop> stops) {
    public static final int LONGEST = 2_000;
    public static final int WIDEST = 16;
    private static final int MOST_STOPS = 24;

    /** @param at px from the start; two at one place make an edge */
    public record Stop(Color color, double at) {}

    /** @throws BadInputException if a number is out of its bounds */
    public Strip {
        if (length < 1 || length > LONGEST) {
            throw new BadInputException(
                    "A strip of " + length + " px is none.", "Write a length of 1 to " + LONGEST + " px.");
        }
        if (across < 1 || across > WIDEST) {
            throw new BadInputException(
                    "A strip " + across + " px thick is none.", "Write 1 to " + WIDEST + "; one is enough.");
        }
        if (stops.isEmpty() || stops.size() > MOST_STOPS) {
            throw new BadInputException("A strip has 1 to " + MOST_STOPS + " colours.", "Give it at least one.");
        }
        stops = List.copyOf(stops);
    }

    /** Colours that run over from one to the next, evenly spread. */
    public static Strip gradient(boolean down, int length, int across, List<Color> colors) {
        List<Stop> stops = new ArrayList<>();
        for (int i = 0; i < colors.size(); i++) {
            stops.add(new Stop(colors.get(i), colors.size() == 1 ? 0 : length * (double) i / (colors.size() - 1)));
        }
        return new Strip(down, length, across, stops);
    }

    /**
     * Lines on a ground, one after another.
     *
     * @param thick px of each line, less than the distance from one to the next
     */
    public static Strip lines(boolean down, int distance, int thick, int across, Color line, Color ground) {
        if (thick < 1 || thick >= distance) {
            throw new BadInputException(
                    "A line of " + thick + " px does not fit into " + distance + " px.",
                    "Make it thinner than the distance from one line to the next.");
        }
        return new Strip(
                down,
                distance,
                across,
                List.of(new Stop(line, 0), new Stop(line, thick), new Stop(ground, thick), new Stop(ground, distance)));
    }

    /** As a PNG. The same strip gives the same bytes. */
    public byte[] png() {
        BufferedImage image = new BufferedImage(
                down ? across : length,
                down ? length : across,
                stops.stream().allMatch(s -> s.color().isOpaque())
                        ? BufferedImage.TYPE_INT_RGB
                        : BufferedImage.TYPE_INT_ARGB);
        for (int i = 0; i < length; i++) {
            int argb = argb(at(i + 0.5));
            for (int k = 0; k < across; k++) {
                image.setRGB(down ? k : i, down ? i : k, argb);
            }
        }
        try {
            return Engine.tightPng(image);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Red, green, blue and alpha at a place, not premultiplied, each 0 to 1. */
    private double[] at(double px) {
        Stop before = stops.get(0);
        for (Stop s : stops) {
            if (s.at() > px) {
                double share = s.at() == before.at() ? 1 : Math.max(0, (px - before.at()) / (s.at() - before.at()));
                return mixed(parts(before.color()), parts(s.color()), share);
            }
            before = s;
        }
        return parts(before.color());
    }

    private static double[] parts(Color c) {
        Color rgb = c.to(ColorSpace.SRGB).toGamut();
        return new double[] {rgb.c0(), rgb.c1(), rgb.c2(), c.alpha()};
    }

    private static double[] mixed(double[] a, double[] b, double share) {
        double alpha = a[3] + (b[3] - a[3]) * share;
        double[] out = {0, 0, 0, alpha};
        for (int i = 0; i < 3 && alpha > 0; i++) {
            out[i] = (a[i] * a[3] * (1 - share) + b[i] * b[3] * share) / alpha;
        }
        return out;
    }

    private static int argb(double[] c) {
        int argb = 0;
        for (int i : new int[] {3, 0, 1, 2}) {
            argb = argb << 8 | (int) Math.round(Math.max(0, Math.min(1, c[i])) * 255);
        }
        return argb;
    }

    /** The same as a CSS gradient, repeated along its length as the picture is. */
    public String css() {
        StringBuilder out = new StringBuilder("repeating-linear-gradient(").append(down ? "" : "to right, ");
        List<String> parts = new ArrayList<>();
        for (Stop s : stops) {
            parts.add(s.color().hex() + " "
                    + String.format(Locale.ROOT, "%.2f", s.at()).replaceAll("\\.?0+$", "") + "px");
        }
        if (stops.get(stops.size() - 1).at() < length) {
            parts.add(stops.get(stops.size() - 1).color().hex() + " " + length + "px");
        }
        return out.append(String.join(", ", parts)).append(')').toString();
    }

    /** Which way it has to repeat to fill a box. */
    public String repeat() {
        return down ? "repeat-x" : "repeat-y";
    }
}
