package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.NearColors;

/** Values that are written again and again, and colours that differ too little to be meant. */
final class RepeatFindings {
    private static final int LEAST_COLOR_USES = 3;
    private static final int LEAST_LENGTH_USES = 4;
    private static final double SHORTEST = 3;
    private static final int MOST = 40;

    private RepeatFindings() {}

    static List<Finding> of(Theme theme, ColorUsage.Result colors, Map<String, SheetRole> roles) {
        List<Finding> findings = new ArrayList<>();
        near(colors, roles, findings);
        repeated(colors, roles, findings);
        for (ThemeSheet part : theme.sheets()) {
            // Sections go to other themes one by one: what is gathered of several would tie them together.
            if (roles.get(part.path()).lasts() && !Sections.isSheet(part)) {
                lengths(theme, part, findings);
            }
        }
        return findings;
    }

    private static void near(ColorUsage.Result colors, Map<String, SheetRole> roles, List<Finding> findings) {
        Map<String, ColorRow> ties = NearColors.ties(colors.rows());
        Map<String, Integer> others = new LinkedHashMap<>();
        for (ColorRow row : colors.rows()) {
            ColorRow main = ties.get(row.value());
            if (main == null || findings.size() >= MOST) {
                continue;
            }
            ColorUse first = row.uses().get(0);
            // What a build or a framework computed is nobody's slip.
            if (row.uses().stream()
                    .allMatch(u ->
                            roles.containsKey(u.file()) && !roles.get(u.file()).lasts())) {
                others.merge(first.file(), 1, Integer::sum);
                continue;
            }
            String written = usual(main);
            findings.add(new Finding(
                            Finding.Kind.NEAR_COLORS,
                            first.file(),
                            first.line(),
                            first.column(),
                            String.format(
                                    Locale.ROOT,
                                    "%s is nearly %s: the distance is %.3f, and %.2f can just be seen. Used %s.",
                                    row.value(),
                                    main.value(),
                                    row.color().distance(main.color()),
                                    NearColors.JUST_NOTICEABLE,
                                    times(row.uses().size())),
                            "Use " + main.value() + " there too.")
                    .about(row.value() + " " + main.value())
                    .painting(row.uses().stream()
                            .flatMap(u -> u.paints().stream())
                            .toList())
                    .fixedBy(() -> gather(row, written)));
        }
        others.forEach((file, n) -> findings.add(new Finding(
                        Finding.Kind.NEAR_COLORS,
                        file,
                        1,
                        0,
                        (n == 1 ? "1 colour" : n + " colours") + " of " + file + (n == 1 ? " is" : " are")
                                + " nearly the same as others: shades that whoever made it computed.",
                        "Nothing has to be done: " + roles.get(file).because() + ", so an edit there would not last.")
                .about("shades of " + file)));
    }

    private static String times(int n) {
        return n == 1 ? "once" : n == 2 ? "twice" : n + " times";
    }

    /** The spelling that is used most, not as bare numbers. */
    private static String usual(ColorRow row) {
        Map<String, Integer> counts = new LinkedHashMap<>();
        row.uses().stream().filter(u -> !u.triple()).forEach(u -> counts.merge(u.written(), 1, Integer::sum));
        return counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(row.value());
    }

    private static Change gather(ColorRow row, String written) {
        Change fix = Change.of("Made " + row.value() + " the same as " + written);
        for (ColorUse u : row.uses()) {
            if (!u.triple()) {
                fix = fix.with(u.file(), new Edit(u.start(), u.end(), written));
            }
        }
        return fix;
    }

    private static void repeated(ColorUsage.Result colors, Map<String, SheetRole> roles, List<Finding> findings) {
        for (ColorRow row : colors.rows()) {
            List<ColorUse> written = row.uses().stream()
                    .filter(u -> u.isLiftable()
                            && !u.fallback()
                            && !u.property().startsWith("--")
                            && roles.get(u.file()).lasts())
                    .toList();
            if (written.size() >= LEAST_COLOR_USES && row.color().alpha() > 0) {
                ColorUse first = written.get(0);
                findings.add(new Finding(
                                Finding.Kind.REPEATED_COLOR,
                                first.file(),
                                first.line(),
                                first.column(),
                                row.value() + " is written " + written.size()
                                        + " times, as "
                                        + String.join(
                                                ", ",
                                                new TreeSet<>(written.stream()
                                                        .map(ColorUse::written)
                                                        .toList()))
                                        + "; whoever changes it must find them all.",
                                "Lift it into a setting, from the colours; or gather it into one custom property.")
                        .about(row.value())
                        .painting(written.stream()
                                .flatMap(u -> u.paints().stream())
                                .toList())
                        .fixedBy(() -> gathered(colors, row, written)));
            }
        }
    }

    private static Change gathered(ColorUsage.Result colors, ColorRow row, List<ColorUse> uses) {
        String name = free("--color-" + row.value().replaceAll("[^0-9a-z]", ""), colors.customProperties());
        String title = "Gathered " + row.value() + " into " + name;
        Change fix = Change.of(title);
        for (ColorUse u : uses) {
            if (!u.triple()) {
                fix = fix.with(u.file(), new Edit(u.start(), u.end(), "var(" + name + ", " + u.written() + ")"));
            }
        }
        ThemeSheet sheet = colors.theme().sheets().stream()
                .filter(p -> p.path().equals(uses.get(0).file()))
                .findFirst()
                .orElseThrow();
        return declare(sheet, name, usual(row), fix);
    }

    private static String free(String name, Set<String> taken) {
        String free = name;
        for (int i = 2; taken.contains(free); i++) {
            free = name + "-" + i;
        }
        return free;
    }

    /** @param family what the length is for */
    private record Length(String family, String text) {}

    private static void lengths(Theme theme, ThemeSheet part, List<Finding> findings) {
        Map<Length, List<Edit>> found = new LinkedHashMap<>();
        part.sheet().eachDeclaration((d, around) -> {
            String family = family(d.property());
            if (family == null
                    || around.stream()
                            .anyMatch(r ->
                                    r instanceof Node.AtRule at && !at.name().equals("media"))) {
                return;
            }
            Tokens tokens = part.sheet().tokens();
            Located at = new Located(part, d, around);
            for (int i = d.valueFirst(); i < d.valueEnd(); ) {
                int next = tokens.opens(i) ? tokens.afterBlock(i, d.valueEnd()) : i + 1;
                if (tokens.is(i, TokenType.DIMENSION)
                        && Math.abs(tokens.number(i)) >= (tokens.lower(i).equals("px") ? SHORTEST : 0.01)) {
                    found.computeIfAbsent(
                                    new Length(family, tokens.raw(i).toLowerCase(Locale.ROOT)), k -> new ArrayList<>())
                            .add(new Edit(at.start(i), at.end(i), tokens.raw(i)));
                }
                i = next;
            }
        });
        found.forEach((length, places) -> {
            if (places.size() >= LEAST_LENGTH_USES) {
                int offset = places.get(0).start();
                findings.add(new Finding(
                                Finding.Kind.REPEATED_LENGTH,
                                part.path(),
                                part.file().line(offset),
                                part.file().column(offset),
                                length.text() + " is written " + places.size() + " times as a " + length.family() + ".",
                                "Gather it into one custom property.")
                        .about(length.family() + " " + length.text())
                        .fixedBy(() -> {
                            String name = free(
                                    "--" + length.family() + "-"
                                            + length.text()
                                                    .replaceAll("[^0-9a-z]+", "-")
                                                    .replaceAll("^-|-$", ""),
                                    ColorUsage.of(theme).customProperties());
                            Change fix = Change.of(
                                    "Gathered the " + length.family() + " " + length.text() + " into " + name);
                            for (Edit place : places) {
                                fix = fix.with(
                                        part.path(),
                                        new Edit(
                                                place.start(),
                                                place.end(),
                                                "var(" + name + ", " + place.replacement() + ")"));
                            }
                            return declare(part, name, length.text(), fix);
                        }));
            }
        });
    }

    private static String family(String property) {
        if (property.startsWith("border") && property.endsWith("radius")) {
            return "corner";
        }
        if (property.equals("font-size")) {
            return "text-size";
        }
        return property.startsWith("padding") || property.startsWith("margin") || property.endsWith("gap")
                ? "space"
                : null;
    }

    /** Declares a custom property in the sheet's {@code :root} rule, or in a new one before the first rule. */
    private static Change declare(ThemeSheet part, String name, String value, Change fix) {
        String newline = part.file().newline();
        for (Node node : part.sheet().rules()) {
            if (node instanceof Node.StyleRule rule
                    && part.sheet().prelude(rule).equals(":root")) {
                Optional<Node.Declaration> last = rule.children().stream()
                        .filter(Node.Declaration.class::isInstance)
                        .map(Node.Declaration.class::cast)
                        .reduce((a, b) -> b);
                if (last.isPresent()) {
                    Located at = new Located(part, last.get(), List.of(rule));
                    int end = at.declarationEnd();
                    return fix.with(
                            part.path(),
                            new Edit(
                                    end,
                                    end,
                                    ";" + (at.isOnOwnLine() ? newline + at.indent() : " ") + name + ": " + value));
                }
            }
        }
        int first = part.sheet().rules().stream()
                .filter(n -> !(n instanceof Node.AtRule at && !at.hasBlock()))
                .mapToInt(n -> part.offset() + part.sheet().tokens().start(n.first()))
                .findFirst()
                .orElse(part.offset());
        return fix.with(
                part.path(),
                new Edit(
                        first,
                        first,
                        ":root {" + newline + "  " + name + ": " + value + ";" + newline + "}" + newline + newline));
    }
}
