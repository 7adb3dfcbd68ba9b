package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.IntStream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Lengths;
import org.jsoup.nodes.Element;

/** The computed style of one element. Values are worked out when they are asked for, and kept. */
public final class ElementStyle {
    private final PageStyles page;
    private final Element element;
    private final ElementStyle parent;
    private final String pseudoElement;
    private final List<CascadedDeclaration> matched;
    private final CustomProperties variables;
    private final Map<String, List<CascadedDeclaration>> byLonghand = new HashMap<>();
    private final Map<String, List<CascadedDeclaration>> custom = new HashMap<>();
    private final Map<String, String> computed = new HashMap<>();
    private final Map<String, Optional<Color>> colors = new HashMap<>(2);
    private Optional<List<BackgroundLayer>> layers;
    private FontSize fontSize;
    private double lineHeight;
    private boolean isLineHeightKnown;

    /** @param parent of the element; for a pseudo-element, the element itself */
    ElementStyle(PageStyles page, Element element, ElementStyle parent, String pseudoElement) {
        this.page = page;
        this.element = element;
        this.parent = parent;
        this.pseudoElement = pseudoElement;
        Budget.step();
        this.matched = page.matched(element, pseudoElement);
        Map<String, String> declared = new HashMap<>();
        for (CascadedDeclaration a : matched) {
            if (a.property().startsWith("--")) {
                custom.computeIfAbsent(a.property(), k -> new ArrayList<>(1)).add(a);
                declared.put(
                        a.property(),
                        RegisteredProperties.absolute(page.registered().get(a.property()), a));
            }
        }
        this.variables = new CustomProperties(
                parent == null ? null : parent.variables, declared, new RegisteredProperties(this, page.registered()));
        for (CascadedDeclaration a : matched) {
            if (!a.property().startsWith("--")) {
                file(a);
            }
        }
        all();
    }

    /** {@code all} concerns every longhand (CSS Cascade 4, section 3.2): also one that is not computed, where something else sets it. */
    private void all() {
        List<CascadedDeclaration> all = matched.stream()
                .filter(a -> a.property().equals("all") && Expansion.isWide(a.value()))
                .toList();
        if (!all.isEmpty()) {
            Set<String> filed = Properties.computed();
            byLonghand.forEach((longhand, list) -> {
                if (!filed.contains(longhand) && !longhand.equals("unicode-bidi") && !longhand.equals("direction")) {
                    list.addAll(all);
                    list.sort(CascadedDeclaration.STRENGTH);
                }
            });
        }
    }

    private void file(CascadedDeclaration a) {
        String property = Properties.isKnown(a.property()) ? a.property() : null;
        if (property == null) {
            return;
        }
        if (property.equals("all")) {
            if (Expansion.isWide(a.value())) {
                for (String l : Properties.computed()) {
                    if (!l.equals("direction")) {
                        byLonghand.computeIfAbsent(l, k -> new ArrayList<>(2)).add(a);
                    }
                }
            }
            return;
        }
        // What holds a var() is valid until it is computed.
        if (!CustomProperties.mentions(a.value())
                && page.expand(property, a.value()).isEmpty()) {
            return;
        }
        for (String l : longhands(property)) {
            byLonghand.computeIfAbsent(l, k -> new ArrayList<>(2)).add(a);
        }
    }

    private static List<String> longhands(String property) {
        String alias = Properties.ALIASES.get(property);
        return alias != null ? List.of(alias) : Properties.longhands(property);
    }

    private static final Set<String> FORM_PARTS = Set.of("input", "select", "button", "textarea", "meter", "progress");

    /** Whether a browser draws it as its system has it: a form part or what {@code appearance} says so of. */
    boolean isDrawnByBrowser() {
        if (pseudoElement != null) {
            return false;
        }
        boolean drawn = FORM_PARTS.contains(element.normalName()) && !isInput("file", "image", "hidden");
        String said = winner("appearance")
                .map(w -> w.value().strip().toLowerCase(Locale.ROOT))
                .orElse("");
        return switch (said) {
            case "none", "initial", "unset" -> false;
            case "", "revert", "revert-layer" -> drawn;
            default -> true;
        };
    }

    /** A check box or radio button that the browser draws: it has no border and no padding, whatever is said of them. */
    boolean isDrawnTick() {
        return isInput("checkbox", "radio") && isDrawnByBrowser();
    }

    private boolean isInput(String... types) {
        return element.normalName().equals("input")
                && Set.of(types).contains(element.attr("type").strip().toLowerCase(Locale.ROOT));
    }

    public Element element() {
        return element;
    }

    /** Name of the pseudo-element that this is the style of, or null. */
    public String pseudoElement() {
        return pseudoElement;
    }

    ElementStyle parent() {
        return parent;
    }

    CustomProperties variables() {
        return variables;
    }

    PageStyles page() {
        return page;
    }

    /** The declarations of a custom property on the element itself, the weaker first. */
    List<CascadedDeclaration> customDeclarations(String name) {
        return custom.getOrDefault(name, List.of());
    }

    List<CascadedDeclaration> matchedDeclarations() {
        return matched;
    }

    /** Whether the same declarations hold for both, in the same order. */
    public boolean isDecidedAs(ElementStyle other) {
        return matched.size() == other.matched.size()
                && IntStream.range(0, matched.size())
                        .allMatch(i -> matched.get(i).declaration()
                                        == other.matched.get(i).declaration()
                                && matched.get(i)
                                        .value()
                                        .equals(other.matched.get(i).value()));
    }

    public boolean isRightToLeft() {
        return computed("direction").equals("rtl");
    }

    /** The declarations for a physical longhand, flow-relative ones among them, the weaker first. */
    List<CascadedDeclaration> candidates(String longhand) {
        List<CascadedDeclaration> own = byLonghand.getOrDefault(longhand, List.of());
        List<CascadedDeclaration> flow = new ArrayList<>(own);
        boolean any = false;
        if (longhand.startsWith("padding-") || longhand.startsWith("margin-") || longhand.startsWith("border-")) {
            for (Map.Entry<String, List<CascadedDeclaration>> e : byLonghand.entrySet()) {
                if (!e.getKey().equals(longhand)
                        && (e.getKey().endsWith("-start")
                                || e.getKey().endsWith("-end")
                                || e.getKey().contains("-start-")
                                || e.getKey().contains("-end-"))
                        && Properties.physical(e.getKey(), isRightToLeft()).equals(longhand)) {
                    flow.addAll(e.getValue());
                    any = true;
                }
            }
        }
        if (any) {
            flow.sort(CascadedDeclaration.STRENGTH);
            return flow;
        }
        return own;
    }

    /** Which declaration wins, with the value that it gives to the longhand before computation. */
    record Winner(CascadedDeclaration applied, String value, boolean invalidAtComputedValueTime) {}

    /** Empty if no declaration sets the longhand, or those that do step back with {@code revert}. */
    Optional<Winner> winner(String longhand) {
        List<CascadedDeclaration> list = candidates(longhand);
        for (int i = list.size() - 1; i >= 0; i--) {
            CascadedDeclaration a = list.get(i);
            Optional<String> value = value(a, longhand);
            if (value.isEmpty()) {
                return Optional.of(new Winner(a, "unset", true));
            }
            if (value.get().equals("revert")) {
                i = lastBefore(
                                list,
                                i,
                                b -> originOf(b) < originOf(a)
                                        || b.origin() == Origin.USER_AGENT && a.origin() != Origin.USER_AGENT)
                        + 1;
            } else if (value.get().equals("revert-layer")) {
                i = lastBefore(
                                list,
                                i,
                                b -> b.layerRank() != a.layerRank()
                                        || b.origin() != a.origin()
                                        || b.important() != a.important())
                        + 1;
            } else {
                return Optional.of(new Winner(a, value.get(), false));
            }
        }
        return Optional.empty();
    }

    private static int originOf(CascadedDeclaration a) {
        return a.origin() == Origin.USER_AGENT ? 0 : 1;
    }

    private static int lastBefore(
            List<CascadedDeclaration> list, int from, java.util.function.Predicate<CascadedDeclaration> fits) {
        for (int i = from - 1; i >= 0; i--) {
            if (fits.test(list.get(i))) {
                return i;
            }
        }
        return -1;
    }

    private Optional<String> value(CascadedDeclaration a, String longhand) {
        Optional<String> text = variables.substitute(a.value());
        if (text.isEmpty()) {
            return Optional.empty();
        }
        if (a.property().equals("all")) {
            return Optional.of(text.get().strip().toLowerCase(java.util.Locale.ROOT));
        }
        Optional<Map<String, String>> expanded =
                page.expand(a.property(), text.get().strip());
        if (expanded.isEmpty()) {
            return Optional.empty();
        }
        for (Map.Entry<String, String> e : expanded.get().entrySet()) {
            if (e.getKey().equals(longhand)
                    || Properties.physical(
                                    e.getKey(),
                                    longhand.startsWith("border-")
                                                    || longhand.startsWith("padding-")
                                                    || longhand.startsWith("margin-")
                                            ? isRightToLeft()
                                            : false)
                            .equals(longhand)) {
                return Optional.of(e.getValue());
            }
        }
        return Optional.empty();
    }

    /** The value of a custom property; empty if it is not set or invalid. */
    public Optional<String> variable(String name) {
        return variables.get(name);
    }

    /**
     * The computed value of a longhand as the browser's computed style writes it. A value that only layout can resolve
     * (a percentage of a size, {@code auto}) is given as it was computed.
     */
    public String computed(String longhand) {
        String known = computed.get(longhand);
        if (known == null) {
            Budget.step();
            known = Computation.of(this, longhand);
            computed.put(longhand, known);
        }
        return known;
    }

    /** Whether the page says what a longhand is, and not only the browser's own sheet. */
    public boolean isAuthored(String longhand) {
        return winner(longhand)
                .filter(w -> w.applied().origin() != Origin.USER_AGENT)
                .isPresent();
    }

    /** The computed colour of a longhand; empty where the value is none, such as {@code none} of {@code fill}. */
    public Optional<Color> colorOf(String longhand) {
        Optional<Color> known = colors.get(longhand);
        if (known == null) {
            known = Color.parse(computed(longhand));
            colors.put(longhand, known);
        }
        return known;
    }

    /**
     * The computed length of a longhand; empty for {@code auto} and for what only layout can resolve and cannot be written as
     * a length and a percentage.
     */
    public Optional<Lengths.Sum> length(String longhand) {
        List<ComponentValue> parts = ComponentValue.read(computed(longhand));
        return parts.size() == 1 ? Lengths.sum(parts.get(0), base()) : Optional.empty();
    }

    /** The computed length in CSS px; empty where it is {@code auto} or depends on layout. */
    public OptionalDouble px(String longhand) {
        Optional<Lengths.Sum> sum = length(longhand).filter(s -> !s.needsLayout() && !s.number());
        return sum.isPresent() ? OptionalDouble.of(sum.get().px()) : OptionalDouble.empty();
    }

    /** Font size in CSS px. */
    public double fontSizePx() {
        return fontSize().px();
    }

    /** From 1 to 1000. */
    public double fontWeight() {
        return Double.parseDouble(computed("font-weight"));
    }

    /** From 0 to 1. */
    public double opacity() {
        return Double.parseDouble(computed("opacity"));
    }

    /** Whether the computed value is a keyword. */
    public boolean is(String longhand, String keyword) {
        return computed(longhand).equals(keyword);
    }

    /** The layers of the background, the uppermost first; empty if they cannot be read. */
    public Optional<List<BackgroundLayer>> backgroundLayers() {
        if (layers == null) {
            layers = computed("background-image").equals("none")
                    ? Optional.of(List.of())
                    : BackgroundLayer.read(new BackgroundLayer.Longhands(
                            computed("background-image"),
                            computed("background-position-x"),
                            computed("background-position-y"),
                            computed("background-size"),
                            computed("background-repeat"),
                            computed("background-origin"),
                            computed("background-clip"),
                            computed("background-attachment")));
        }
        return layers;
    }

    /** The value to compute: declared, inherited or initial. */
    String specified(String longhand) {
        Optional<Winner> winner = winner(longhand);
        boolean inherited = Properties.isInherited(longhand);
        String value = winner.map(Winner::value).orElse(inherited ? "inherit" : "initial");
        if (value.equals("unset")) {
            value = inherited ? "inherit" : "initial";
        }
        return value;
    }

    FontSize fontSize() {
        if (fontSize == null) {
            fontSize = FontSize.of(this);
        }
        return fontSize;
    }

    Lengths.Base base() {
        Element root = page.root();
        double rem = root == null || root == element && pseudoElement == null
                ? fontSize().px()
                : page.of(root).fontSize().px();
        return new Lengths.Base(
                fontSize().px(),
                rem,
                page.window(),
                this::lineHeight,
                () -> root == null ? Double.NaN : page.of(root).lineHeight());
    }

    /**
     * Computed line height in CSS px; NaN for {@code normal}, which a font's metrics decide. A number is inherited as a number, a length as
     * the length that it is where it is declared (CSS 2.2, section 10.8.1).
     */
    double lineHeight() {
        // Asked for once: a calculation may ask for that of the parent several times, and that again.
        if (!isLineHeightKnown) {
            Budget.step();
            lineHeight = readLineHeight();
            isLineHeightKnown = true;
        }
        return lineHeight;
    }

    private double readLineHeight() {
        ElementStyle from = this;
        while (from.parent() != null && from.specified("line-height").equals("inherit")) {
            from = from.parent();
        }
        List<ComponentValue> parts = ComponentValue.read(from.specified("line-height"));
        if (parts.size() != 1) {
            return Double.NaN;
        }
        Lengths.Base base = new Lengths.Base(
                from.fontSize().px(),
                from.base().rem(),
                page.window(),
                from.parent() == null ? () -> Double.NaN : from.parent()::lineHeight,
                from.parent() == null ? () -> Double.NaN : from.base().rlh());
        OptionalDouble number = Lengths.number(parts.get(0), base);
        if (number.isPresent()) {
            return Math.max(0, number.getAsDouble()) * fontSize().px();
        }
        double em = from.fontSize().px();
        return Lengths.sum(parts.get(0), base)
                .map(s -> Math.max(0, s.px() + s.percent() / 100 * em))
                .orElse(Double.NaN);
    }

    /** Whether the used colour scheme is dark: what the visitor prefers, where it is offered (CSS Color Adjustment 1, section 2.1). */
    public boolean isDark() {
        String scheme = computed("color-scheme");
        return scheme.contains("dark") && (page.window().dark() || !scheme.contains("light"));
    }

    Color currentColor() {
        return colorOf("color").orElse(Color.BLACK);
    }

    Optional<Color> color(String text) {
        return Expansion.color(text, currentColor(), isDark());
    }

    boolean isRoot() {
        return parent == null;
    }
}
