package org.calmpalette.core.render;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.calmpalette.core.Budget;
import org.calmpalette.core.Digest;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Document;

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
        private final Moving moving;
        private final Effective values;
        /** Endings of the names that anything which moves boxes speaks of; see {@link #ending}. */
        private final Set<String> named = new HashSet<>();

        private final Map<String, Set<String>> namedIn = new HashMap<>();

        public Keys(Rendered rendered) {
            this.rendered = rendered;
            Theme theme = rendered.theme();
            Stylesheet settings = Stylesheet.read(SourceText.of(Theme.SETTINGS_CSS, ThemeBuild.settingsCss(theme)));
            moving = Moving.of(rendered, settings);
            values = rendered.values();
            LayoutKey key = new LayoutKey(moving);
            String given = key.written(settings);
            key.add(given);
            named(given, named);
            // Choices of paint alone leave nothing here, and then it is as if nobody had chosen anything.
            rendered.chosen().map(key::written).filter(w -> !w.isEmpty()).ifPresent(w -> {
                key.add(w);
                named(w, named);
            });
            theme.files().paths().stream()
                    .filter(p -> FONTS.contains(Paths.ending(p)))
                    .forEach(p -> key.add(p + " " + theme.files().size(p)));
            common = key.end();
        }

        /** 64 hexadecimal digits. */
        public synchronized String of(Page page) {
            return pages.computeIfAbsent(page.source().file(), p -> {
                LayoutKey key = new LayoutKey(moving);
                key.add(common);
                key.add(page.source().file());
                byte[] shown = shown(page);
                key.digest.bytes(shown);
                Set<String> all = new HashSet<>(named);
                named(new String(shown, page.source().charset()), all);
                rendered.loaded(page).forEach(path -> {
                    key.add(path + " " + sheets.computeIfAbsent(path, this::sheet));
                    all.addAll(namedIn.getOrDefault(path, Set.of()));
                });
                pictures(all).forEach(key::add);
                return key.end();
            });
        }

        /** The page as it is filled, but for where links lead and what pictures are called: as it is written where nothing else differs. */
        private byte[] shown(Page page) {
            byte[] filled = ThemeBuild.filled(page, values);
            byte[] written = page.source().bytes();
            return Arrays.equals(filled, written)
                            || inBoxes(Page.read(page.source().file(), filled)).equals(inBoxes(page))
                    ? written
                    : filled;
        }

        private static String inBoxes(Page page) {
            Document copy = page.document().clone();
            copy.select("[href]").removeAttr("href");
            copy.select("[alt]").removeAttr("alt");
            return copy.outerHtml();
        }

        private String sheet(String path) {
            LayoutKey key = new LayoutKey(moving);
            rendered.theme().sheets().stream()
                    .filter(s -> s.path().equals(path) && s.offset() == 0)
                    .forEach(s -> {
                        String text = key.written(s.sheet());
                        key.add(text);
                        named(text, namedIn.computeIfAbsent(path, x -> new HashSet<>()));
                    });
            return key.end();
        }

        /** The pictures and videos with the sizes that may make boxes: what nothing but paint speaks of makes none. */
        private List<String> pictures(Set<String> endings) {
            Theme theme = rendered.theme();
            return theme.media().paths().stream()
                    .filter(path -> endings.contains("\\") || endings.contains(ending(path)))
                    .map(path -> {
                        MediaFacts facts = theme.media().facts(path).orElseThrow();
                        return path + " " + facts.width() + " " + facts.height();
                    })
                    .toList();
        }
    }

    /**
     * The custom properties that may move a box: those that a declaration of something else than paint reads, by way of others too,
     * and those that a condition asks for.
     *
     * @param known false if some stylesheet was not looked at; then any may
     */
    private record Moving(Set<String> names, boolean known) {
        private static final Pattern NAME = Pattern.compile("--[\\w-]+");

        static Moving of(Rendered rendered, Stylesheet settings) {
            Theme theme = rendered.theme();
            Set<String> paths = theme.sheets().stream().map(ThemeSheet::path).collect(Collectors.toSet());
            boolean known = theme.aside().isEmpty()
                    && theme.pages().stream()
                            .flatMap(p -> rendered.loaded(p).stream())
                            .allMatch(p -> paths.contains(p) || Theme.isGenerated(p));
            Map<String, Set<String>> readBy = new HashMap<>();
            Set<String> names = new HashSet<>();
            List<Stylesheet> all = new ArrayList<>(
                    theme.declaring().stream().map(ThemeSheet::sheet).toList());
            all.add(settings);
            rendered.chosen().ifPresent(all::add);
            for (Stylesheet sheet : all) {
                sheet.eachDeclaration((d, around) -> {
                    Set<String> read = read(sheet, d);
                    if (d.isCustom()) {
                        readBy.computeIfAbsent(d.property(), k -> new HashSet<>())
                                .addAll(read);
                    } else if (!PAINT.matcher(d.property()).matches()) {
                        names.addAll(read);
                    }
                });
                conditions(sheet, sheet.rules(), 0, names);
            }
            // Attributes whose text is not their value, character by character, are read by name alone.
            Set<String> verbatim = theme.attributes().stream()
                    .map(a -> a.sheet().source().text())
                    .collect(Collectors.toSet());
            theme.pages().forEach(p -> p.document().select("[style*=--]").stream()
                    .map(e -> e.attr("style"))
                    .filter(s -> !verbatim.contains(s))
                    .forEach(s -> NAME.matcher(s).results().forEach(r -> names.add(r.group()))));
            Deque<String> open = new ArrayDeque<>(names);
            while (!open.isEmpty()) {
                for (String name : readBy.getOrDefault(open.poll(), Set.of())) {
                    if (names.add(name)) {
                        open.add(name);
                    }
                }
            }
            return new Moving(names, known);
        }

        private static Set<String> read(Stylesheet sheet, Node.Declaration d) {
            Set<String> read = new HashSet<>();
            Tokens tokens = sheet.tokens();
            for (int i = d.valueFirst(); i < d.valueEnd(); i++) {
                if (tokens.is(i, TokenType.IDENT) && tokens.value(i).startsWith("--")) {
                    read.add(tokens.value(i));
                }
            }
            return read;
        }

        private static void conditions(Stylesheet sheet, List<? extends Node> nodes, int depth, Set<String> names) {
            for (Node node : nodes) {
                if (node instanceof Node.AtRule at && !at.name().equals("property")) {
                    NAME.matcher(sheet.prelude(at)).results().forEach(r -> names.add(r.group()));
                }
                if (node instanceof Node.Rule rule && depth > DEEPEST) {
                    NAME.matcher(sheet.text(rule.first(), rule.end())).results().forEach(r -> names.add(r.group()));
                } else if (node instanceof Node.Rule rule) {
                    conditions(sheet, rule.children(), depth + 1, names);
                }
            }
        }

        boolean has(String name) {
            return !known || names.contains(name);
        }
    }

    /** Names of pictures and videos, as far as they have no blank or delimiter in them. */
    private static final Pattern NAMED = Pattern.compile(
            "[^\\s\"'()<>=/,;]+\\.(?:jpe?g|png|webp|avif|gif|svg|mp4|webm|ogv)\\b", Pattern.CASE_INSENSITIVE);

    /** Adds the endings of the names in a text; a backslash where it has escapes, which may hide any. */
    private static void named(String text, Set<String> all) {
        NAMED.matcher(text).results().forEach(r -> all.add(ending(Paths.decoded(r.group()))));
        if (text.indexOf('\\') >= 0 || text.contains("&#")) {
            all.add("\\");
        }
    }

    /** What of a path is found again in an address, whatever stands before it: from the last blank or delimiter on, in lower case. */
    private static String ending(String path) {
        return path.replaceFirst("(?s)^.*[\\s\"'()<>=/,;&]", "").toLowerCase(Locale.ROOT);
    }

    private final Digest digest = new Digest();
    private final Moving moving;

    private LayoutKey(Moving moving) {
        this.moving = moving;
    }

    private String end() {
        return digest.end();
    }

    /** What of a stylesheet can move a box. */
    private String written(Stylesheet sheet) {
        StringBuilder text = new StringBuilder();
        write(sheet, sheet.rules(), 0, text);
        return text.toString();
    }

    /** A rule in which nothing is left but paint is as if it were not there. What is nested deeper than any page needs is taken as it is written. */
    private void write(Stylesheet sheet, List<? extends Node> nodes, int depth, StringBuilder out) {
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

    private boolean isPaint(Stylesheet sheet, Node.Declaration d) {
        String value = sheet.value(d);
        return PAINT.matcher(d.property()).matches()
                || d.isCustom()
                        && (!moving.has(d.property())
                                || Color.parse(value.strip()).isPresent()
                                // Where not all is known, a picture is taken to lie behind something, as most do.
                                || !moving.known()
                                        && ONLY_ADDRESS.matcher(value).matches());
    }

    private void add(String text) {
        digest.text(text);
    }
}
