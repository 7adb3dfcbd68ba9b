package org.calmpalette.core.render;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.theme.Theme;

/**
 * A name for how a page is laid out: two states of a theme in which nothing that moves a box differs have the same one. So what was
 * measured stays good when only paint changes.
 */
public final class LayoutKey {
    /** Properties that paint and never move a box: CSS Backgrounds 3, Color 4, Compositing 1, Text Decoration 3, Masking 1. */
    private static final Pattern PAINT = Pattern.compile(
            "(-webkit-)?(color|background(-.*)?|border(-.+)?-color|border(-.+)?-radius|outline(-.*)?|box-shadow|text-shadow"
                    + "|opacity|fill|stroke|caret-color|accent-color|cursor|text-decoration(-color|-style)?|mix-blend-mode|filter|backdrop-filter|mask(-.*)?|clip-path|transition(-.*)?"
                    + "|animation(-.*)?|will-change|user-select|pointer-events)");
    /** Files whose sizes decide boxes. */
    private static final Set<String> FONTS = Set.of("woff", "woff2", "ttf", "otf");

    private static final int DEEPEST = 100;
    private static final Pattern ONLY_ADDRESS = Pattern.compile("\\s*url\\([^)]*\\)\\s*", Pattern.CASE_INSENSITIVE);

    /** What all pages of a theme share, worked out once. */
    public static final class Keys {
        private final Rendered rendered;
        private final String common;
        private final Map<String, String> sheets = new HashMap<>();
        private final Map<String, String> pages = new HashMap<>();

        public Keys(Rendered rendered) {
            this.rendered = rendered;
            Theme theme = rendered.theme();
            LayoutKey key = new LayoutKey();
            key.add(Stylesheet.read(SourceText.of(Theme.SETTINGS_CSS, ThemeBuild.settingsCss(theme))));
            // Choices of colours alone leave nothing here, and then it is as if nobody had chosen anything.
            rendered.chosen().map(LayoutKey::written).filter(w -> !w.isEmpty()).ifPresent(key::add);
            for (String path : theme.media().paths()) {
                MediaFacts facts = theme.media().facts(path).orElseThrow();
                key.add(path + " " + facts.width() + " " + facts.height());
            }
            theme.files().paths().stream()
                    .filter(p -> FONTS.contains(Paths.ending(p)))
                    .forEach(p -> key.add(p + " " + theme.files().size(p)));
            common = key.end();
        }

        /** 64 hexadecimal digits. */
        public synchronized String of(Page page) {
            return pages.computeIfAbsent(page.source().file(), p -> {
                LayoutKey key = new LayoutKey();
                key.add(common);
                key.add(page.source().file());
                key.digest.update(page.source().withEdits(List.of()));
                rendered.loaded(page).forEach(path -> key.add(path + " " + sheets.computeIfAbsent(path, this::sheet)));
                return key.end();
            });
        }

        private String sheet(String path) {
            LayoutKey key = new LayoutKey();
            rendered.theme().sheets().stream()
                    .filter(s -> s.path().equals(path) && s.offset() == 0)
                    .forEach(s -> key.add(s.sheet()));
            return key.end();
        }
    }

    private final MessageDigest digest;

    private LayoutKey() {
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private String end() {
        return HexFormat.of().formatHex(digest.digest());
    }

    private void add(Stylesheet sheet) {
        add(written(sheet));
    }

    /** What of a stylesheet can move a box. */
    private static String written(Stylesheet sheet) {
        StringBuilder text = new StringBuilder();
        write(sheet, sheet.rules(), 0, text);
        return text.toString();
    }

    /** A rule in which nothing is left but paint is as if it were not there. What is nested deeper than any page needs is taken as it is written. */
    private static void write(Stylesheet sheet, List<? extends Node> nodes, int depth, StringBuilder out) {
        for (Node node : nodes) {
            Budget.step();
            if (node instanceof Node.Declaration d) {
                if (!isPaint(sheet, d)) {
                    out.append(d.property()).append(':').append(sheet.value(d)).append(d.important() ? "!;" : ";");
                }
            } else if (node instanceof Node.Rule rule && depth > DEEPEST) {
                out.append(sheet.text(rule.first(), rule.end()));
            } else if (node instanceof Node.Rule rule) {
                int before = out.length();
                out.append(
                                node instanceof Node.AtRule at
                                        ? "@" + at.name() + " " + sheet.prelude(at)
                                        : sheet.prelude(rule))
                        .append('{');
                int inside = out.length();
                write(sheet, rule.children(), depth + 1, out);
                if (out.length() == inside && !(rule instanceof Node.AtRule at && !at.hasBlock())) {
                    out.setLength(before);
                } else {
                    out.append('}');
                }
            }
        }
    }

    private static boolean isPaint(Stylesheet sheet, Node.Declaration d) {
        String value = sheet.value(d);
        return PAINT.matcher(d.property()).matches()
                || d.isCustom()
                        && (Color.parse(value.strip()).isPresent()
                                || ONLY_ADDRESS.matcher(value).matches()
                                || value.strip().equals("none"));
    }

    private void add(String text) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
    }
}
