package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.NamedColors;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/** Finds every colour that the stylesheets of a theme write, and every place that reads a setting. */
public final class ColorUsage {
    private static final Pattern TRIPLE =
            Pattern.compile("\\s*(\\d{1,3})(?:\\s*,\\s*|\\s+)(\\d{1,3})(?:\\s*,\\s*|\\s+)(\\d{1,3})\\s*");
    private static final Set<String> COLOR_FUNCTIONS =
            Set.of("rgb", "rgba", "hsl", "hsla", "hwb", "lab", "lch", "oklab", "oklch", "color", "color-mix");
    private static final Set<String> NO_COLORS_INSIDE =
            Set.of("url", "src", "format", "local", "attr", "counter", "counters", "env", "calc", "string");

    private final Readers readers;
    private final Set<String> namesInRgb = new LinkedHashSet<>();
    private final Set<String> customProperties = new LinkedHashSet<>();
    private final Map<String, Set<String>> passed = new LinkedHashMap<>();
    private final List<ColorUse> uses = new ArrayList<>();
    private final Map<String, Setting> settings;
    private final List<BoundUse> bound = new ArrayList<>();

    private ColorUsage(Theme theme) {
        this.readers = Readers.of(theme);
        this.settings = theme.palette().properties();
    }

    /**
     * What was found.
     *
     * @param theme that was looked at
     * @param rows one for each colour, the most used first
     * @param bound places that read a setting of the palette
     * @param customProperties every custom property that the stylesheets declare or read
     */
    public record Result(Theme theme, List<ColorRow> rows, List<BoundUse> bound, Set<String> customProperties) {
        /** Each colour that can hardly be told from a more used one, with that one. */
        public Map<String, ColorRow> ties() {
            return NearColors.ties(rows);
        }

        public List<BoundUse> boundTo(String key) {
            return bound.stream().filter(b -> b.key().equals(key)).toList();
        }
    }

    public static Result of(Theme theme) {
        ColorUsage survey = new ColorUsage(theme);
        theme.declaring().forEach(survey::index);
        survey.passOn();
        theme.declaring().forEach(survey::collect);
        Map<String, List<ColorUse>> byColor = new LinkedHashMap<>();
        for (ColorUse use : survey.uses) {
            byColor.computeIfAbsent(ColorKey.of(use.color()), k -> new ArrayList<>())
                    .add(use);
        }
        List<ColorRow> rows = new ArrayList<>();
        byColor.forEach(
                (value, uses) -> rows.add(new ColorRow(value, uses.get(0).color(), List.copyOf(uses))));
        // What is fully transparent is no colour that anybody looks for.
        rows.sort(Comparator.<ColorRow, Boolean>comparing(r -> r.color().alpha() == 0)
                .thenComparing(
                        Comparator.<ColorRow>comparingInt(r -> r.uses().size()).reversed()));
        return new Result(theme, List.copyOf(rows), List.copyOf(survey.bound), Set.copyOf(survey.customProperties));
    }

    /** What a property in {@code rgb()} is set to from another one is numbers as well. */
    private void passOn() {
        List<String> open = new ArrayList<>(namesInRgb);
        while (!open.isEmpty()) {
            for (String from : passed.getOrDefault(open.remove(open.size() - 1), Set.of())) {
                if (namesInRgb.add(from)) {
                    open.add(from);
                }
            }
        }
    }

    private void index(ThemeSheet part) {
        Stylesheet sheet = part.sheet();
        Tokens tokens = sheet.tokens();
        sheet.eachDeclaration((declaration, around) -> {
            if (declaration.isCustom()) {
                customProperties.add(declaration.property());
                Reference.at(tokens, declaration.valueFirst(), declaration.valueEnd())
                        .filter(r -> r.end() == declaration.valueEnd() && !r.hasFallback())
                        .ifPresent(r -> passed.computeIfAbsent(declaration.property(), k -> new LinkedHashSet<>())
                                .add(r.name()));
            }
            for (Reference r : Reference.in(tokens, declaration.valueFirst(), declaration.valueEnd())) {
                customProperties.add(r.name());
            }
            for (int i = declaration.valueFirst(); i < declaration.valueEnd(); i++) {
                String name = tokens.is(i, TokenType.FUNCTION) ? tokens.lower(i) : "";
                if (name.equals("rgb") || name.equals("rgba")) {
                    int next = tokens.skipBlank(i + 1, declaration.valueEnd());
                    Reference.at(tokens, next, declaration.valueEnd()).ifPresent(r -> namesInRgb.add(r.name()));
                }
            }
        });
    }

    private void collect(ThemeSheet part) {
        part.sheet().eachDeclaration((declaration, around) -> {
            boolean descriptor = around.stream().anyMatch(r -> r instanceof Node.AtRule at && !holdsStyles(at.name()));
            if (!descriptor || isPropertyRule(around)) {
                new DeclarationReader(part, declaration, around).read();
            }
        });
    }

    private static boolean holdsStyles(String atRule) {
        return !Set.of(
                        "font-face",
                        "property",
                        "counter-style",
                        "font-feature-values",
                        "font-palette-values",
                        "page",
                        "view-transition",
                        "color-profile")
                .contains(atRule);
    }

    /** Why the initial value of a registered property stays as it is. */
    static final String REGISTERED =
            "The initial value of a registered property must be a fixed colour; browsers refuse var() here.";

    static boolean isPropertyRule(List<Node.Rule> around) {
        return !around.isEmpty()
                && around.get(around.size() - 1) instanceof Node.AtRule at
                && at.name().equals("property");
    }

    /** Looks for colours in one declaration. */
    private final class DeclarationReader {
        private final ThemeSheet part;
        private final Node.Declaration declaration;
        private final List<Node.Rule> around;
        private final Tokens tokens;
        private List<Painted> paints;
        private int inFallback;
        private int colorless;

        DeclarationReader(ThemeSheet part, Node.Declaration declaration, List<Node.Rule> around) {
            this.part = part;
            this.declaration = declaration;
            this.around = around;
            this.tokens = part.sheet().tokens();
        }

        void read() {
            String value = part.sheet().value(declaration);
            if (declaration.isCustom() && namesInRgb.contains(declaration.property())) {
                triple(value).ifPresent(c -> add(declaration.valueFirst(), declaration.valueEnd(), c, true));
            }
            read(
                    declaration.valueFirst(),
                    declaration.valueEnd(),
                    ColorProperties.takesNames(declaration.property()) || declaration.isCustom() && isOneWord());
        }

        private boolean isOneWord() {
            return declaration.valueEnd() - declaration.valueFirst() == 1;
        }

        private void read(int first, int end, boolean names) {
            int i = first;
            while (i < end) {
                int next = i + 1;
                switch (tokens.type(i)) {
                    case HASH -> addIfColor(i, next);
                    case IDENT -> {
                        if (names && NamedColors.get(tokens.value(i)).isPresent()) {
                            addIfColor(i, next);
                        }
                    }
                    case FUNCTION -> {
                        next = tokens.afterBlock(i, end);
                        readFunction(i, next, names);
                    }
                    case LEFT_PAREN, LEFT_BRACKET, LEFT_BRACE -> {
                        next = tokens.afterBlock(i, end);
                        read(i + 1, next, names && !tokens.is(i, TokenType.LEFT_BRACE));
                    }
                    default -> {}
                }
                i = next;
            }
        }

        private void readFunction(int open, int after, boolean names) {
            String name = tokens.lower(open);
            if (COLOR_FUNCTIONS.contains(name) && addIfColor(open, after)) {
                return;
            }
            if ((name.equals("rgb") || name.equals("rgba")) && addNumbers(open, after)) {
                return;
            }
            if (NO_COLORS_INSIDE.contains(name)) {
                // No colour is there, but a setting may be read.
                colorless++;
                read(open + 1, after, false);
                colorless--;
                return;
            }
            if (name.equals("var")) {
                int property = tokens.skipBlank(open + 1, after);
                int comma = tokens.skipBlank(property + 1, after);
                String read = tokens.value(property);
                int fallback = comma + 1;
                boolean hasFallback = comma < after && tokens.is(comma, TokenType.COMMA);
                if (bind(read, open, after, hasFallback ? fallback : after)) {
                    return;
                }
                if (hasFallback) {
                    inFallback++;
                    read(fallback, after, names || declaration.isCustom());
                    inFallback--;
                }
                return;
            }
            boolean inside = names
                    || name.endsWith("gradient")
                    || name.equals("drop-shadow")
                    || name.equals("light-dark")
                    || COLOR_FUNCTIONS.contains(name);
            read(open + 1, after, inside);
        }

        /** The three numbers of {@code rgba(10, 88, 202, var(--opacity))}: a colour whose opacity is read from elsewhere. */
        private boolean addNumbers(int open, int after) {
            int first = tokens.skipBlank(open + 1, after);
            int last = first;
            int numbers = 0;
            for (int i = first; i < after && numbers < 3; i++) {
                if (tokens.is(i, TokenType.NUMBER)) {
                    numbers++;
                    last = i + 1;
                } else if (!tokens.isBlank(i) && !tokens.is(i, TokenType.COMMA)) {
                    return false;
                }
            }
            int comma = tokens.skipBlank(last, after);
            if (numbers < 3 || colorless > 0 || comma >= after || !tokens.is(comma, TokenType.COMMA)) {
                return false;
            }
            int end = last;
            Optional<Color> color = triple(part.sheet().text(first, last));
            color.ifPresent(c -> {
                add(first, end, c, true);
                read(comma + 1, after, false);
            });
            return color.isPresent();
        }

        private boolean bind(String read, int open, int after, int fallback) {
            Setting s = settings.get(read);
            if (s == null) {
                return false;
            }
            int last = tokens.is(after - 1, TokenType.RIGHT_PAREN) ? after - 1 : after;
            String text = fallback < last ? part.sheet().text(fallback, last).strip() : "";
            bound.add(new BoundUse(
                    s.key(),
                    read,
                    part.path(),
                    part.offset() + tokens.start(open),
                    part.offset() + tokens.end(after - 1),
                    part.line(tokens.start(open)),
                    selectorText(),
                    declaration.property(),
                    text,
                    paints()));
            return true;
        }

        private boolean addIfColor(int first, int end) {
            if (colorless > 0) {
                return false;
            }
            Optional<Color> color = Color.parse(part.sheet().text(first, end));
            color.ifPresent(c -> add(first, end, c, false));
            return color.isPresent();
        }

        private void add(int first, int end, Color color, boolean triple) {
            int start = tokens.start(first);
            uses.add(new ColorUse(
                    part.path(),
                    part.offset() + start,
                    part.offset() + tokens.end(end - 1),
                    part.line(start),
                    part.column(start),
                    selectorText(),
                    conditions(),
                    declaration.property(),
                    part.sheet().text(first, end),
                    color,
                    triple,
                    inFallback > 0,
                    obstacle(),
                    paints(),
                    comment()));
        }

        private String obstacle() {
            return isPropertyRule(around) ? REGISTERED : "";
        }

        private String selectorText() {
            if (around.isEmpty()) {
                return Readers.STYLE_ATTRIBUTE;
            }
            Optional<SelectorList> list = Readers.selector(part.sheet(), around);
            boolean nested =
                    around.stream().filter(Node.StyleRule.class::isInstance).count() > 1;
            if (list.isPresent() && nested) {
                return list.get().toString();
            }
            return innermostPrelude();
        }

        private String innermostPrelude() {
            Node.Rule rule = around.get(around.size() - 1);
            if (rule instanceof Node.StyleRule
                    && around.size() > 1
                    && around.get(around.size() - 2) instanceof Node.AtRule at
                    && at.name().endsWith("keyframes")) {
                return "@" + at.name() + " " + part.sheet().prelude(at) + " "
                        + part.sheet().prelude(rule);
            }
            for (int i = around.size() - 1; i >= 0; i--) {
                if (around.get(i) instanceof Node.StyleRule style) {
                    return part.sheet().prelude(style);
                }
            }
            return rule instanceof Node.AtRule at
                    ? "@" + at.name() + " " + part.sheet().prelude(at)
                    : "";
        }

        private List<String> conditions() {
            List<String> conditions = new ArrayList<>();
            for (Node.Rule rule : around) {
                if (rule instanceof Node.AtRule at
                        && !at.name().endsWith("keyframes")
                        && !at.name().equals("property")) {
                    conditions.add(("@" + at.name() + " " + part.sheet().prelude(at)).strip());
                }
            }
            return List.copyOf(conditions);
        }

        private List<Painted> paints() {
            if (paints == null) {
                paints = Readers.selector(part.sheet(), around)
                        .map(s -> declaration.isCustom()
                                ? readers.paintedBy(declaration.property())
                                : PageSelector.of(s, declaration.property()))
                        .orElse(List.of());
            }
            return paints;
        }

        private String comment() {
            return Comments.above(part.sheet(), around);
        }
    }

    public static Optional<Color> triple(String value) {
        var m = TRIPLE.matcher(value.toLowerCase(Locale.ROOT));
        if (!m.matches()) {
            return Optional.empty();
        }
        return Color.parse("rgb(" + m.group(1) + " " + m.group(2) + " " + m.group(3) + ")")
                .filter(c ->
                        List.of(m.group(1), m.group(2), m.group(3)).stream().allMatch(v -> Integer.parseInt(v) <= 255));
    }
}
