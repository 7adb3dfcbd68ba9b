package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Digest;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.BoxGeometry.Sides;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * The boxes of a page as a browser laid them out: those of elements that paint, and the lines of texts, over window widths. The
 * browser measures at as many widths as it takes until every box between two of them is known to half a pixel; where it gave up,
 * the widths between are named.
 *
 * @param page path of the page
 * @param layout the {@link LayoutKey} of the page as it was measured; empty if it is not told
 * @param windowHeight in CSS px, the same for all widths
 * @param from narrowest width that was measured
 * @param to widest one
 * @param unsure stretches of widths between which boxes jump, and nobody looked where
 * @param height of the whole page
 * @param boxes by index of the element on the page, see {@link org.calmpalette.core.page.Page#elements()}: x, y, width and height of
 *     the border box from the page's corner, and for elements with pictures the widths of their borders and paddings, each top,
 *     right, bottom, left; all in CSS px
 * @param lines by index of the element: x, y, width and height of each line of its own text
 */
public record Measures(
        String page,
        String layout,
        int windowHeight,
        int from,
        int to,
        List<Between> unsure,
        Track height,
        Map<Integer, Track> boxes,
        Map<Integer, Track> lines) {
    public static final String FORMAT = "calm-measures/1";
    /** Bytes of the file at most. */
    public static final int LARGEST = 8_000_000;

    private static final int NARROWEST = 100;
    private static final int WIDEST = 10_000;
    private static final int MOST_POINTS = 3_000;
    /** The numbers of a box without and with borders and paddings. */
    private static final int PLAIN = 4;

    private static final int WHOLE = 12;
    /** What Chromium lays out is at most this long; a layout beyond it is not one. */
    private static final double LONGEST = 33_554_432;

    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    /** Widths between {@code from} and {@code to}, both of which were measured. */
    public record Between(int from, int to) {}

    public Measures {
        unsure = List.copyOf(unsure);
        boxes = Map.copyOf(boxes);
        lines = Map.copyOf(lines);
    }

    /** The same, of a page with that {@link LayoutKey}. */
    public Measures of(String key) {
        return new Measures(page, key, windowHeight, from, to, unsure, height, boxes, lines);
    }

    /** Stands for all that it says: of two that are equal, so are the boxes. */
    public String mark() {
        Digest all = new Digest().text(page).text(layout).numbers(windowHeight, from, to);
        unsure.forEach(b -> all.numbers(b.from(), b.to()));
        mark(all, -1, height);
        boxes.forEach((element, track) -> mark(all, element, track));
        all.text("lines");
        lines.forEach((element, track) -> mark(all, element, track));
        return all.end();
    }

    private static void mark(Digest all, int element, Track track) {
        all.numbers(element);
        track.points().forEach(p -> all.numbers(p.width()).numbers(p.values() == null ? new double[0] : p.values()));
    }

    /** Whether boxes are known at a width: it was measured, or lies between two widths with a straight line from one to the other. */
    public boolean isSureAt(int width) {
        return width >= from && width <= to && unsure.stream().noneMatch(b -> width > b.from() && width < b.to());
    }

    /** The border box of an element; empty where it is not shown, or was not measured. */
    public Optional<Rectangle> box(int element, double width) {
        return numbers(boxes, element, width).map(n -> new Rectangle(n[0], n[1], n[2], n[3]));
    }

    /** The boxes of an element as backgrounds are placed in them. Borders and paddings are 0 if they were not measured. */
    public Optional<BoxGeometry> geometry(int element, double width) {
        return numbers(boxes, element, width).map(n -> {
            Sides border = n.length < WHOLE ? Sides.NONE : new Sides(n[4], n[5], n[6], n[7]);
            Sides padding = n.length < WHOLE ? Sides.NONE : new Sides(n[8], n[9], n[10], n[11]);
            return new BoxGeometry(
                    Math.max(0, n[2] - border.left() - border.right()),
                    Math.max(0, n[3] - border.top() - border.bottom()),
                    border,
                    padding);
        });
    }

    /** The lines of an element's own text. */
    public List<Rectangle> lines(int element, double width) {
        double[] n = numbers(lines, element, width).orElse(new double[0]);
        List<Rectangle> all = new ArrayList<>();
        for (int i = 0; i + 3 < n.length; i += 4) {
            all.add(new Rectangle(n[i], n[i + 1], n[i + 2], n[i + 3]));
        }
        return all;
    }

    /** Height of the page in CSS px, at least that of the window. */
    public double pageHeight(double width) {
        return Math.max(windowHeight, height.at(width).map(n -> n[0]).orElse(0.0));
    }

    private static Optional<double[]> numbers(Map<Integer, Track> tracks, int element, double width) {
        Track track = tracks.get(element);
        return track == null ? Optional.empty() : track.at(width);
    }

    /**
     * Reads a file of measures.
     *
     * @param name of the file, for messages
     * @throws BadInputException if it is none, with the place and what belongs there
     */
    public static Measures read(String name, byte[] bytes) {
        if (bytes.length > LARGEST) {
            throw new BadInputException(
                    name + " is larger than " + LARGEST / 1_000_000 + " MB.",
                    "Measure the page again; measures of a page are smaller.");
        }
        JsonNode root;
        try {
            root = MAPPER.readTree(bytes);
        } catch (JacksonException e) {
            throw bad(
                    name,
                    "line "
                            + (e.getLocation() == null
                                    ? 1
                                    : Math.max(1, e.getLocation().getLineNr())),
                    "this is not JSON");
        }
        if (!root.path("format").asString("").equals(FORMAT)) {
            throw bad(name, "format", "this is not “" + FORMAT + "”");
        }
        int from = whole(name, root, "from", NARROWEST, WIDEST);
        int to = whole(name, root, "to", from, WIDEST);
        List<Between> unsure = new ArrayList<>();
        for (JsonNode pair : root.path("unsure")) {
            if (pair.size() != 2
                    || !pair.get(0).isInt()
                    || !pair.get(1).isInt()
                    || pair.get(0).intValue() >= pair.get(1).intValue()) {
                throw bad(name, "unsure[" + unsure.size() + "]", "two widths belong here, the narrower one first");
            }
            unsure.add(new Between(pair.get(0).intValue(), pair.get(1).intValue()));
        }
        Track height = track(name, "height", root.path("height"), 1, 1);
        return new Measures(
                root.path("page").asString(""),
                root.path("layout").asString(""),
                whole(name, root, "windowHeight", 1, 100_000),
                from,
                to,
                unsure,
                height,
                tracks(name, "boxes", root.path("boxes"), true),
                tracks(name, "lines", root.path("lines"), false));
    }

    private static Map<Integer, Track> tracks(String name, String key, JsonNode node, boolean box) {
        Map<Integer, Track> all = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> e : node.properties()) {
            if (!e.getKey().matches("\\d{1,7}")) {
                throw bad(name, key + "." + e.getKey(), "the number of an element belongs here");
            }
            all.put(
                    Integer.valueOf(e.getKey()),
                    track(name, key + "." + e.getKey(), e.getValue(), PLAIN, box ? WHOLE : 0));
        }
        return all;
    }

    /** @param most numbers at one width; 0 for any multiple of {@code least} */
    private static Track track(String name, String at, JsonNode node, int least, int most) {
        List<Track.Point> points = new ArrayList<>();
        if (!node.isArray() || node.size() > MOST_POINTS) {
            throw bad(name, at, "a list of up to " + MOST_POINTS + " widths belongs here");
        }
        for (JsonNode p : node) {
            if (!p.isArray() || p.isEmpty() || !p.get(0).isInt()) {
                throw bad(name, at, "each entry starts with a width in whole pixels");
            }
            double[] values = new double[p.size() - 1];
            boolean fits = values.length == 0
                    || values.length == least
                    || values.length == most
                    || most == 0 && values.length % least == 0;
            for (int i = 0; i < values.length; i++) {
                values[i] = p.get(i + 1).isNumber() ? p.get(i + 1).doubleValue() : Double.NaN;
                fits &= Math.abs(values[i]) <= LONGEST;
            }
            if (!fits) {
                throw bad(name, at + " at " + p.get(0), "it does not hold the numbers of a box");
            }
            points.add(new Track.Point(p.get(0).intValue(), values));
        }
        return new Track(points);
    }

    private static int whole(String name, JsonNode root, String key, int least, int most) {
        JsonNode node = root.path(key);
        if (!node.isInt() || node.intValue() < least || node.intValue() > most) {
            throw bad(name, key, "a whole number from " + least + " to " + most + " belongs here");
        }
        return node.intValue();
    }

    private static BadInputException bad(String name, String at, String what) {
        return new BadInputException(
                name + ", " + at + ": " + what + ".", "Measure the page again in Pictures, which writes this file.");
    }

    /** As a file. */
    public byte[] write() {
        ObjectNode root = MAPPER.createObjectNode();
        root.put("format", FORMAT)
                .put("page", page)
                .put("layout", layout)
                .put("windowHeight", windowHeight)
                .put("from", from)
                .put("to", to);
        ArrayNode pairs = root.putArray("unsure");
        unsure.forEach(b -> pairs.addArray().add(b.from()).add(b.to()));
        write(root.putArray("height"), height);
        ObjectNode boxNode = root.putObject("boxes");
        boxes.keySet().stream().sorted().forEach(i -> write(boxNode.putArray(String.valueOf(i)), boxes.get(i)));
        ObjectNode lineNode = root.putObject("lines");
        lines.keySet().stream().sorted().forEach(i -> write(lineNode.putArray(String.valueOf(i)), lines.get(i)));
        return MAPPER.writeValueAsBytes(root);
    }

    private static void write(ArrayNode node, Track track) {
        for (Track.Point p : track.points()) {
            ArrayNode one = node.addArray().add(p.width());
            for (double v : p.values() == null ? new double[0] : p.values()) {
                one.add(Math.round(v * 100) / 100.0);
            }
        }
    }
}
