package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.Inactive;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;

/**
 * The promise that every text can be read, whatever an owner chooses of what is allowed: each keeps the contrast that WCAG 2.2 (1.4.3) asks
 * for with what lies behind it, at every width, at rest. Decided where plain colours lie behind a text. Where something else does, where
 * an opacity takes part or a colour is computed from a choice, it is told as not decided, with the reason.
 *
 * <p>It is taken that a text stays inside of the boxes around it: whether it does is a promise of its own. Asked for are texts of elements,
 * in a light scheme; not yet those of generated boxes and fields, nor what scripts and other states make of them.
 */
public final class Readable {
    private static final int HEIGHT = 900;
    private static final int FROM = 320;
    private static final int TO = 2560;

    /** What of a layer must not follow a choice, so that it is the same layer whatever is chosen. */
    private static final List<String> LAYER = List.of(
            "background-image",
            "background-clip",
            "background-blend-mode",
            "opacity",
            "mix-blend-mode",
            "filter",
            "backdrop-filter",
            "position",
            "transform",
            "margin-top",
            "margin-left",
            "z-index",
            "color-scheme");

    /** A text whose colours are known as far as choices go, and where the first one like it stands. */
    private record Asked(
            Page page,
            int element,
            int width,
            Band band,
            double needed,
            ColorExpression letters,
            List<ColorExpression> grounds,
            String why,
            AtomicInteger parts,
            Set<String> pages) {}

    private final Theme theme;
    private final Rendered rendered;
    private final ColorExpression.Choices choices;
    private final Map<List<Object>, Asked> asked = new LinkedHashMap<>();
    private final boolean containers;
    private final boolean byPlace;

    private Readable(Theme theme) {
        this.theme = theme;
        this.rendered = new Rendered(theme, Map.of());
        Set<String> colors = new LinkedHashSet<>();
        Set<String> others = new LinkedHashSet<>();
        theme.palette().properties().forEach((property, setting) -> {
            boolean color = setting.kind() instanceof ColorKind && property.equals(setting.property());
            (color ? colors : others).add(property);
        });
        byPlace = theme.sheets().stream()
                .anyMatch(s -> BY_PLACE.matcher(s.file().text()).find());
        // What holds by the size of a box is known by layout alone.
        containers = theme.sheets().stream().anyMatch(s -> s.file().text().contains("@container"));
        choices = new ColorExpression.Choices(colors, others, Set.of(Theme.SETTINGS_CSS, Theme.PALETTE_CSS));
    }

    /** What is proved and what is not, the broken first, then what is not decided. */
    public static List<Answer> of(Theme theme) {
        Readable readable = new Readable(theme);
        for (Page page : theme.pages()) {
            List<Integer> widths = readable.widths();
            for (int i = 0; i < widths.size(); i++) {
                readable.texts(page, widths.get(i), i + 1 < widths.size() ? widths.get(i + 1) - 1 : TO);
            }
        }
        Proof proof = new Proof(theme);
        List<Answer> all = new ArrayList<>();
        for (Asked a : readable.asked.values()) {
            Budget.step();
            all.add(readable.answer(a, proof));
        }
        all.sort(java.util.Comparator.comparingInt(
                x -> List.of(Answer.State.BROKEN, Answer.State.UNPROVEN, Answer.State.KEPT)
                        .indexOf(x.state())));
        return List.copyOf(all);
    }

    /** The narrowest window, and the first width of each stretch in which the same rules and defaults hold. */
    private List<Integer> widths() {
        Set<Integer> all = new TreeSet<>(Breakpoint.firsts(theme, FROM, TO));
        all.add(FROM);
        Bands bands = theme.palette().bands();
        bands.list().forEach(b -> all.add(Math.max(FROM, bands.from(b))));
        return all.stream().filter(w -> w <= TO).toList();
    }

    /** @param last width at which the same rules hold */
    private void texts(Page page, int width, int last) {
        PageStyles styles = rendered.styles(page, Viewport.of(width, HEIGHT), States.NONE);
        Backdrop.Reader backdrops = new Backdrop.Reader(styles, theme.files()::has);
        List<Element> all = page.elements();
        Band band = theme.palette().bands().at(width);
        for (int i = 1; i < all.size(); i++) {
            Element e = all.get(i);
            boolean says = e.textNodes().stream().anyMatch(t -> !t.isBlank());
            boolean inBody = e.normalName().equals("body")
                    || e.parents().stream().anyMatch(p -> p.normalName().equals("body"));
            if (!says
                    || !inBody
                    || Set.of("script", "style", "option", "template", "noscript")
                            .contains(e.normalName())
                    || Inactive.holds(e)) {
                continue;
            }
            if (styles.isHidden(e)) {
                if (mayBeShown(styles, e)) {
                    ask(
                            page,
                            i,
                            width,
                            band,
                            4.5,
                            null,
                            List.of(),
                            "it is not shown as made, and a choice may show it");
                }
                continue;
            }
            if (mayMatchOtherwise(e)) {
                ask(
                        page,
                        i,
                        width,
                        band,
                        4.5,
                        null,
                        List.of(),
                        "other rules may hold where a choice changes parts or their order");
                continue;
            }
            text(page, i, width, last, styles, backdrops.of(e));
        }
    }

    /** What is bound to a choice so that it comes, goes, is repeated or becomes another element. */
    private static final String SHAPED =
            "[data-setting-show], [data-setting-items], [data-setting-level], [data-setting-in]";

    /** Selectors that look at what stands beside or inside of something; more rather than fewer. */
    private static final Pattern BY_PLACE = Pattern.compile(":(nth|first|last|only|empty|has)|[+~]\\s*[.#\\[\\w*:]");

    /** Whether a choice may change which rules hold for an element, since it or something beside or around it becomes another. */
    private boolean mayMatchOtherwise(Element e) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (a.hasAttr("data-setting-level") || a.hasAttr("data-setting-in")) {
                return true;
            }
            if (byPlace && a.parent().children().stream().anyMatch(c -> c.is(SHAPED))) {
                return true;
            }
        }
        return false;
    }

    private boolean mayBeShown(PageStyles styles, Element e) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (a.hasAttr("data-setting-show")) {
                return true;
            }
        }
        return followsAround(styles, e, "display") || followsAround(styles, e, "visibility");
    }

    private void text(Page page, int index, int width, int last, PageStyles styles, Backdrop backdrop) {
        Element e = page.elements().get(index);
        Band band = theme.palette().bands().at(width);
        ElementStyle style = styles.of(e);
        double needed = needed(styles, e);
        if (needed < 4.5 && last > width) {
            // A size may follow the window's width.
            needed = Math.max(needed, needed(rendered.styles(page, Viewport.of(last, HEIGHT), States.NONE), e));
        }
        ColorExpression letters = ColorExpression.of(style, "color", choices);
        boolean painted = Painting.declared(style, "-webkit-text-fill-color").isPresent()
                || Painting.declared(style, "text-shadow")
                        .filter(s -> !s.equals("none"))
                        .isPresent()
                || ColorExpression.follows(style, "-webkit-text-fill-color", choices)
                || ColorExpression.follows(style, "text-shadow", choices);
        if (painted) {
            ask(page, index, width, band, needed, letters, List.of(), "a shadow or a fill of the letters takes part");
            return;
        }
        List<ColorExpression> grounds = new ArrayList<>();
        String why = containers
                ? "rules hold by the size of a box"
                : followsAround(styles, e, "color-scheme")
                        ? "the scheme follows a choice"
                        : grounds(styles, backdrop, grounds);
        ask(page, index, width, band, needed, letters, grounds, why);
    }

    /** Fills in what lies behind, down to what hides all else. @return why it is not known; empty where it is */
    private String grounds(PageStyles styles, Backdrop backdrop, List<ColorExpression> grounds) {
        List<Backdrop.Layer> layers = backdrop.layers();
        boolean floats = false;
        for (int i = 0; i < layers.size(); i++) {
            Backdrop.Layer layer = layers.get(i);
            ElementStyle style = styles.of(layer.element());
            if (style.is("visibility", "hidden")
                    || style.is("display", "contents")
                    || style.computed("background-clip").contains("text")) {
                return "what is around it paints nothing there";
            }
            if (layer.generated() != null) {
                return "a generated box lies there";
            }
            if (!layer.beneath().isEmpty()) {
                return "the page below it changes, or something lies below it";
            }
            if (layer.unknown() != null && layer.unknown() != Backdrop.Unknown.MOVED) {
                return switch (layer.unknown()) {
                    case PICTURE -> "a picture lies behind it";
                    case GRADIENT -> "a gradient lies behind it";
                    case FILTER -> "a filter changes it";
                    case BLEND_MODE -> "it is blended with what is behind it";
                    default -> "a background that is not read lies behind it";
                };
            }
            for (String longhand : LAYER) {
                if (ColorExpression.follows(style, longhand, choices)) {
                    return longhand + " of what is behind it follows a choice";
                }
            }
            if (layer.opacity() != 1) {
                return "an opacity takes part";
            }
            ColorExpression ground = ColorExpression.of(style, "background-color", choices);
            boolean clear =
                    ground instanceof ColorExpression.Fixed f && f.color().alpha() == 0;
            if (floats && !clear) {
                return "it floats, and may leave the box behind it";
            }
            floats |= !style.is("float", "none");
            if (!clear) {
                grounds.add(ground);
            }
            if (isOpaque(ground)) {
                return around(styles, layers.subList(i + 1, layers.size()));
            }
            if (layer.unknown() == Backdrop.Unknown.MOVED) {
                return "it was moved, and may lie over anything";
            }
        }
        return "";
    }

    /** What is hidden may still change what hides it. */
    private String around(PageStyles styles, List<Backdrop.Layer> layers) {
        for (Backdrop.Layer layer : layers) {
            boolean changes = layer.generated() == null
                    && (layer.opacity() != 1
                            || layer.unknown() == Backdrop.Unknown.FILTER
                            || layer.unknown() == Backdrop.Unknown.BLEND_MODE);
            if (changes) {
                return "an opacity, a filter or a blend mode around it takes part";
            }
            for (String longhand : List.of("opacity", "filter", "mix-blend-mode")) {
                if (ColorExpression.follows(styles.of(layer.element()), longhand, choices)) {
                    return longhand + " around it follows a choice";
                }
            }
        }
        return "";
    }

    private boolean isOpaque(ColorExpression e) {
        return e instanceof ColorExpression.Fixed f
                ? f.color().isOpaque()
                : e instanceof ColorExpression.Chosen c
                        && theme.palette().properties().get(c.property()).kind() instanceof ColorKind kind
                        && Proof.isOpaque(theme.palette().properties().get(c.property()), kind);
    }

    /** 4.5 where a choice may make a large text a small one. */
    private double needed(PageStyles styles, Element e) {
        return followsAround(styles, e, "font-size") || followsAround(styles, e, "font-weight")
                ? 4.5
                : Contrast.needed(styles.of(e).fontSizePx(), styles.of(e).fontWeight());
    }

    private boolean followsAround(PageStyles styles, Element e, String longhand) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (ColorExpression.follows(styles.of(a), longhand, choices)) {
                return true;
            }
        }
        return false;
    }

    private void ask(
            Page page,
            int element,
            int width,
            Band band,
            double needed,
            ColorExpression letters,
            List<ColorExpression> grounds,
            String why) {
        List<Object> key = new ArrayList<>(List.of(String.valueOf(letters), List.copyOf(grounds), needed, why));
        if (!why.isEmpty()) {
            key.add(page.source().file() + " " + element);
        } else {
            // The same question in two bands, unless the settings are made otherwise in one of them.
            for (ColorExpression e :
                    Stream.concat(Stream.of(letters), grounds.stream()).toList()) {
                if (e instanceof ColorExpression.Chosen c) {
                    Setting s = theme.palette().properties().get(c.property());
                    key.add(s.givenIn(band));
                    key.add(s.bands().containsKey(band.key()));
                }
            }
        }
        Asked a = asked.computeIfAbsent(
                key,
                k -> new Asked(
                        page,
                        element,
                        width,
                        band,
                        needed,
                        letters,
                        List.copyOf(grounds),
                        why,
                        new AtomicInteger(),
                        new TreeSet<>()));
        a.parts.incrementAndGet();
        a.pages.add(page.source().file());
    }

    private Answer answer(Asked a, Proof proof) {
        Proof.Outcome o = a.why.isEmpty()
                ? proof.decide(a.letters, a.grounds, a.needed, a.band, chosen -> ratio(a, chosen))
                : Proof.Outcome.unproven(a.why);
        Element e = a.page.elements().get(a.element);
        String words = e.textNodes().stream()
                .map(TextNode::text)
                .map(String::strip)
                .filter(t -> !t.isEmpty())
                .findFirst()
                .orElse("");
        return new Answer(
                a.page.source().file(),
                a.element,
                PartSelector.unique(a.page, e),
                words.length() > 60 ? words.substring(0, 60) + "…" : words,
                a.width,
                a.parts.get(),
                a.pages,
                a.needed,
                o.state(),
                o.worst(),
                o.broken(),
                o.why());
    }

    /** The contrast of a text as the whole cascade has it with choices; empty if it is not known there. */
    private Optional<Double> ratio(Asked a, Map<String, org.calmpalette.core.setting.Chosen> chosen) {
        Rendered with = new Rendered(theme, chosen);
        Page page = with.page(a.page.source().file()).orElseThrow();
        PageStyles styles = with.styles(page, Viewport.of(a.width, HEIGHT), States.NONE);
        Element e = page.elements().get(a.element);
        Backdrop backdrop = new Backdrop.Reader(styles, theme.files()::has).of(e);
        return backdrop.unknown() != null
                ? Optional.empty()
                : styles.of(e).colorOf("color").map(c -> backdrop.under(c).ratio());
    }
}
