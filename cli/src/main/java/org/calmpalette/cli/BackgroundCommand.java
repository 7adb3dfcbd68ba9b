package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Placement;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Position;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "background",
        mixinStandardHelpOptions = true,
        description = "Where the tiles of a background land in a box (CSS Backgrounds 3).")
final class BackgroundCommand implements Callable<Integer> {
    private static final Pattern PAIR =
            Pattern.compile("\\s*(-?[\\d.]+(?:[eE][+-]?\\d+)?)\\s*[xX×]\\s*(-?[\\d.]+(?:[eE][+-]?\\d+)?)\\s*");

    @Spec
    private CommandSpec spec;

    @Option(names = "--box", paramLabel = "WxH", description = "The padding box in CSS px.")
    private String box;

    @Option(
            names = "--picture",
            paramLabel = "WxH",
            description = "The picture's own size in px; W:H for one with a ratio only, none for one with neither.")
    private String picture;

    @Option(names = "--size", paramLabel = "SIZE", description = "As background-size, default ${DEFAULT-VALUE}.")
    private String size = "auto";

    @Option(
            names = "--position",
            paramLabel = "POSITION",
            description = "As background-position, default ${DEFAULT-VALUE}.")
    private String position = "0% 0%";

    @Option(names = "--repeat", paramLabel = "REPEAT", description = "As background-repeat, default ${DEFAULT-VALUE}.")
    private String repeat = "repeat";

    @Option(names = "--origin", paramLabel = "BOX", description = "As background-origin, default ${DEFAULT-VALUE}.")
    private String origin = "padding-box";

    @Option(names = "--clip", paramLabel = "BOX", description = "As background-clip, default ${DEFAULT-VALUE}.")
    private String clip = "border-box";

    @Option(names = "--border", paramLabel = "WIDTHS", description = "One to four widths in px, as border-width.")
    private String border = "0";

    @Option(names = "--padding", paramLabel = "WIDTHS", description = "One to four widths in px, as padding.")
    private String padding = "0";

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with the option names as keys.")
    private Path cases;

    /** The question as texts, however it was asked. */
    private record Asked(
            String box,
            String picture,
            String size,
            String position,
            String repeat,
            String origin,
            String clip,
            String border,
            String padding) {}

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases,
                    out,
                    given -> answer(place(new Asked(
                            text(given, "box", ""),
                            text(given, "picture", ""),
                            text(given, "size", "auto"),
                            text(given, "position", "0% 0%"),
                            text(given, "repeat", "repeat"),
                            text(given, "origin", "padding-box"),
                            text(given, "clip", "border-box"),
                            text(given, "border", "0"),
                            text(given, "padding", "0")))));
        }
        Placement p = place(new Asked(
                box == null ? "" : box,
                picture == null ? "" : picture,
                size,
                position,
                repeat,
                origin,
                clip,
                border,
                padding));
        if (json) {
            Answers.print(out, answer(p));
        } else {
            out.printf(
                    Locale.ROOT,
                    "tile     %s by %s at %s, %s%n",
                    plain(p.tile().width()),
                    plain(p.tile().height()),
                    plain(p.tile().x()),
                    plain(p.tile().y()));
            out.printf(Locale.ROOT, "step     %s, %s%n", plain(p.stepX()), plain(p.stepY()));
            out.printf(Locale.ROOT, "painted  %s %%%n", plain(p.painted() * 100));
            out.printf(
                    Locale.ROOT,
                    "shown    %s by %s of the picture, from %s, %s%n",
                    plain(p.shown().width()),
                    plain(p.shown().height()),
                    plain(p.shown().x()),
                    plain(p.shown().y()));
            out.printf(Locale.ROOT, "scale    %s, %s%n", plain(p.scaleX()), plain(p.scaleY()));
            out.flush();
        }
        return 0;
    }

    /** A text, a number, a list of numbers, or an object with width and height or with sides, as one text. */
    private static String text(JsonNode given, String key, String otherwise) {
        JsonNode node = given.path(key);
        if (node.isMissingNode() || node.isNull()) {
            return otherwise;
        }
        if (node.isArray()) {
            List<String> all = new ArrayList<>();
            node.forEach(n -> all.add(n.asString("")));
            return String.join(key.equals("box") || key.equals("picture") ? "x" : " ", all);
        }
        if (node.isObject()) {
            List<String> names = node.has("width") || node.has("height")
                    ? List.of("width", "height")
                    : List.of("top", "right", "bottom", "left");
            return String.join(
                    names.size() == 2 ? "x" : " ",
                    names.stream().map(n -> node.path(n).asString("0")).toList());
        }
        return node.asString("");
    }

    private static Placement place(Asked asked) {
        double[] wide = pair("--box", asked.box(), "the padding box, such as 1440x600");
        BoxGeometry geometry = new BoxGeometry(
                wide[0], wide[1], sides("--border", asked.border()), sides("--padding", asked.padding()));
        for (Map.Entry<String, String> e :
                Map.of("--size", asked.size(), "--position", asked.position()).entrySet()) {
            measured(e.getKey(), e.getValue());
        }
        Position at = Position.read(ComponentValue.read(asked.position()))
                .orElseThrow(() ->
                        bad("--position", asked.position(), "a position, such as center or right 10px bottom 20%"));
        BackgroundLayer layer = read(asked, at)
                .orElseThrow(() -> bad(
                        "--size, --repeat, --origin or --clip",
                        String.join(", ", asked.size(), asked.repeat(), asked.origin(), asked.clip()),
                        "values of those properties, such as cover, repeat-x, padding-box, border-box"));
        return Placement.of(layer, natural(asked.picture()), geometry);
    }

    private static Optional<BackgroundLayer> read(Asked asked, Position at) {
        return BackgroundLayer.read(new BackgroundLayer.Longhands(
                        "none",
                        "0%",
                        "0%",
                        asked.size().strip(),
                        asked.repeat().strip(),
                        asked.origin().strip(),
                        asked.clip().strip(),
                        "scroll"))
                .map(l -> l.get(0))
                .map(l -> new BackgroundLayer(
                        l.image(), at, l.size(), l.repeatX(), l.repeatY(), l.origin(), l.clip(), l.attachment()));
    }

    /** Lengths have to be ones that need no page around them. */
    private static void measured(String option, String text) {
        for (ComponentValue c : ComponentValue.read(text)) {
            if (c.kind() == ComponentValue.Kind.DIMENSION
                    && !Lengths.unit(c.name(), Lengths.Base.NONE).isPresent()) {
                throw bad(
                        option,
                        c.text(),
                        "pixels or percentages: there is no page here that " + c.name() + " could refer to");
            }
            if (c.kind() == ComponentValue.Kind.FUNCTION) {
                measured(option, c.inside());
            }
        }
    }

    private static NaturalSize natural(String text) {
        if (text.strip().equals("none")) {
            return NaturalSize.NONE;
        }
        String[] ratio = text.split(":");
        if (ratio.length == 2) {
            double[] sides = pair("--picture", ratio[0] + "x" + ratio[1], "a ratio, such as 16:9");
            if (sides[0] > 0 && sides[1] > 0) {
                return NaturalSize.ofRatio(sides[0] / sides[1]);
            }
            throw bad("--picture", text, "a ratio of two numbers above 0");
        }
        double[] sides = pair("--picture", text, "the picture's size, such as 800x400, 16:9 or none");
        return NaturalSize.of(sides[0], sides[1]);
    }

    private static double[] pair(String option, String text, String wanted) {
        Matcher m = PAIR.matcher(text);
        try {
            double[] pair =
                    m.matches() ? new double[] {Double.parseDouble(m.group(1)), Double.parseDouble(m.group(2))} : null;
            if (pair != null && pair[0] >= 0 && pair[1] >= 0) {
                return pair;
            }
        } catch (NumberFormatException twoPoints) {
            // Told below.
        }
        throw bad(option, text, wanted + ", not negative");
    }

    private static BoxGeometry.Sides sides(String option, String text) {
        List<ComponentValue> parts = ComponentValue.read(text);
        List<Double> px = new ArrayList<>();
        for (ComponentValue p : parts) {
            double value = p.kind() == ComponentValue.Kind.NUMBER
                    ? p.number()
                    : Lengths.sum(p, Lengths.Base.NONE)
                            .filter(s -> !s.needsLayout())
                            .map(Lengths.Sum::px)
                            .orElse(-1.0);
            if (value < 0) {
                throw bad(option, text, "one to four widths in px");
            }
            px.add(value);
        }
        if (px.isEmpty() || px.size() > 4) {
            throw bad(option, text, "one to four widths in px");
        }
        double top = px.get(0);
        double right = px.size() > 1 ? px.get(1) : top;
        return new BoxGeometry.Sides(top, right, px.size() > 2 ? px.get(2) : top, px.size() > 3 ? px.get(3) : right);
    }

    private static BadInputException bad(String option, String given, String wanted) {
        return new BadInputException(option + ": “" + given + "” cannot be read.", "Give " + wanted + ".");
    }

    private static Map<String, Object> answer(Placement p) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("tile", rectangle(p.tile()));
        answer.put("step", both(p.stepX(), p.stepY()));
        answer.put("painted", p.painted());
        answer.put("shown", rectangle(p.shown()));
        answer.put("scale", both(p.scaleX(), p.scaleY()));
        return answer;
    }

    private static Map<String, Object> both(double x, double y) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("x", x);
        answer.put("y", y);
        return answer;
    }

    private static Map<String, Object> rectangle(BoxGeometry.Rectangle r) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("x", r.x());
        answer.put("y", r.y());
        answer.put("width", r.width());
        answer.put("height", r.height());
        return answer;
    }

    private static String plain(double v) {
        return BigDecimal.valueOf(Math.rint(v * 1000) / 1000)
                .stripTrailingZeros()
                .toPlainString();
    }
}
