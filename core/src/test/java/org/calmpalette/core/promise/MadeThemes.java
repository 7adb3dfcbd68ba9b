package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.RandomChoices;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;

/** Small themes with colours that are chosen, at random: what a proof says of them is tried against what is seen. */
public final class MadeThemes {
    public static final String PAGE =
            "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body><main><h1 id=t1>One</h1>"
                    + "<p id=t2>Two <a id=t3 href=#>three</a></p></main><footer id=t4>Four</footer></body></html>";

    /** What has to be seen besides words, each with room around it. */
    public static final String PARTS =
            "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body><main><p id=t1></p>"
                    + "<form><input id=t2 aria-label=Name></form><a id=t3 href=# aria-label=Open><svg><rect width=40 height=40 /></svg></a><nav><a id=t4 href=#>&nbsp;</a></nav></main></body></html>";

    private MadeThemes() {}

    public static Theme theme(Random random) {
        String settings = settings(random);
        return theme(PAGE, settings, sheet(random));
    }

    /** One with {@link #PARTS}. */
    public static Theme parts(Random random) {
        String settings = settings(random);
        StringBuilder css = new StringBuilder(
                ":root { --brand: var(--ink) } body { margin: 0 } main { padding: 20px; font: 40px/60px sans-serif } nav { margin: 20px; padding: 20px } p { margin: 0 } form { padding: 20px; line-height: 0 } a { display: block; width: 40px; height: 40px; margin: 20px } svg { display: block; width: 40px; height: 40px }\n");
        for (String selector : List.of("body", "main", "nav")) {
            css.append(selector)
                    .append(" { background: ")
                    .append(random.nextBoolean() ? "#ffffff" : one(random, COLORS))
                    .append(" }\n");
        }
        if (random.nextInt(3) == 0) {
            css.append("main { opacity: .8 }\n");
        }
        css.append("p::before { content: 'N\\2588'; padding: 0 20px; color: ").append(one(random, COLORS));
        if (random.nextBoolean()) {
            css.append("; background: ").append(one(random, COLORS));
        }
        css.append(random.nextInt(3) == 0 ? "; opacity: .7" : "").append(" }\n");
        css.append("input { width: 80px; height: 40px; box-sizing: border-box; border: 6px solid ")
                .append(one(random, COLORS))
                .append("; background: ")
                .append(one(random, COLORS))
                .append(random.nextInt(4) == 0 ? "; opacity: .9" : "")
                .append(" }\nsvg { fill: ")
                .append(one(random, COLORS))
                .append(random.nextBoolean() ? "; stroke-width: 8px; stroke: " + one(random, COLORS) : "")
                .append(" }\n#t4:focus { outline: 6px solid ")
                .append(one(random, COLORS))
                .append(" }\n");
        return theme(PARTS, settings, css.toString());
    }

    private static String settings(Random random) {
        return ReadableTest.color("ink", random.nextBoolean() ? "#1d2b3a" : "#101820", allowed(random, "paper"))
                + "," + ReadableTest.color("paper", "#ffffff", allowed(random, "ink")) + ","
                + ReadableTest.follows(
                        "turned", "paper", "\"readable\": {\"dark\": \"#000000\", \"light\": \"#ffffff\"}")
                + "," + ReadableTest.follows("pale", "ink", "\"lighter\": 30");
    }

    private static Theme theme(String page, String settings, String css) {
        return Themes.of(
                "index.html",
                page,
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": [" + settings
                        + "]}");
    }

    /** For most settings that are asked; what is not allowed is left out by whoever builds the page. */
    public static Map<String, Chosen> choices(Random random, Theme theme) {
        Map<String, Chosen> chosen = new LinkedHashMap<>();
        for (Setting s : theme.palette().settings()) {
            if (s.shown() == null && random.nextInt(4) > 0) {
                chosen.put(s.key(), Chosen.of(RandomChoices.color(random, (ColorKind) s.kind())));
            }
        }
        return chosen;
    }

    private static String allowed(Random random, String other) {
        List<String> parts = new ArrayList<>(List.of("\"opaque\": true"));
        switch (random.nextInt(4)) {
            case 0 -> parts.set(0, "\"swatches\": [\"#1d2b3a\", \"#ffffff\", \"#8a5a2b\", \"#f3efe6\"]");
            case 1 ->
                parts.add(String.format(
                        Locale.ROOT,
                        "\"bounds\": {\"lightness\": [%d, %d], \"chroma\": [0, %.2f], \"hue\": [%d, %d]}",
                        random.nextInt(30),
                        35 + random.nextInt(65),
                        0.02 + random.nextDouble() * 0.3,
                        random.nextInt(360),
                        random.nextInt(360)));
            case 2 -> parts.add("\"bounds\": {\"lightness\": [70, 100], \"chroma\": [0, 0.08]}");
            default -> {}
        }
        if (random.nextInt(2) == 0) {
            String with = random.nextBoolean() ? other : random.nextBoolean() ? "#ffffff" : "#101820";
            parts.add("\"contrast\": [{\"with\": \"" + with + "\", \"atLeast\": " + (random.nextBoolean() ? "4.5" : "7")
                    + "}]");
        }
        return String.join(", ", parts);
    }

    private static final List<String> MIXED = List.of(
            "color-mix(in oklab, var(--ink) 30%, var(--paper))",
            "color-mix(in srgb, var(--paper), #101820 20%)", "rgb(from var(--ink) r g b / 80%)");

    /** One of the first six colours, or now and then one that is mixed of what is chosen. */
    private static String one(Random random, List<String> colors) {
        return random.nextInt(6) == 0 ? MIXED.get(random.nextInt(MIXED.size())) : colors.get(random.nextInt(6));
    }

    private static final List<String> COLORS = List.of(
            "var(--ink)",
            "var(--paper)",
            "#101820",
            "var(--turned)",
            "var(--pale)",
            "#ffffff",
            "inherit",
            "var(--brand, red)");

    private static String sheet(Random random) {
        List<String> colors = COLORS;
        StringBuilder css = new StringBuilder(":root { --brand: var(--ink) }\n");
        for (String selector : List.of("body", "main", "h1", "p", "a", "footer")) {
            css.append(selector).append(" { color: ").append(colors.get(random.nextInt(colors.size())));
            if (random.nextBoolean()) {
                css.append("; background: ").append(one(random, colors));
            }
            if (random.nextInt(6) == 0) {
                css.append("; opacity: ").append(random.nextBoolean() ? ".85" : ".6");
            }
            if (random.nextInt(8) == 0) {
                String end = one(random, colors);
                css.append("; background: linear-gradient(")
                        .append(random.nextBoolean() ? end : one(random, colors))
                        .append(", ")
                        .append(end)
                        .append(")");
            }
            css.append(" }\n");
        }
        css.append("main:hover a, footer:hover { color: ")
                .append(one(random, colors))
                .append(" }\n");
        return css.toString();
    }
}
