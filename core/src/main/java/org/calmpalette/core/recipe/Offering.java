package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.survey.Proposal;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.SpacingSteps;
import org.jsoup.nodes.Element;

/** What of a part's questions can be offered: where a rule decides it today, with a value that a kind of setting has. */
final class Offering {
    private static final Pattern SPACED = Pattern.compile("^(padding|margin)|gap$");
    private static final Pattern RELATIVE = Pattern.compile("\\d(em|ex|ch|lh|%)");

    private final PartView view;
    private final Recipe recipe;
    /** Read once: a large sheet has thousands. */
    private List<ColorRow> colors;

    Offering(PartView view, Recipe recipe) {
        this.view = view;
        this.recipe = recipe;
    }

    static boolean laysOut(PartView view, Element e) {
        String display = view.wide().of(e).computed("display");
        return display.contains("flex") || display.contains("grid");
    }

    Optional<Offer> of(Question q) {
        Map<Integer, String> declared = new LinkedHashMap<>();
        Set<String> where = new LinkedHashSet<>();
        if (!isOfItsState(q)) {
            return Optional.empty();
        }
        Element element = view.of(q);
        for (int width : view.widths(q)) {
            PageStyles here = view.styles(width, q);
            Explanation e = Explanation.of(here.of(element), q.property());
            Element holder = e.inheritedFrom() == null ? element : e.inheritedFrom();
            String css = Painting.declared(here.of(holder), q.property()).orElse(e.value());
            if (holder != element && RELATIVE.matcher(e.value()).find()) {
                return Optional.empty();
            }
            // What is relative to the font means something else on the element that inherits it.
            declared.put(width, holder != element && RELATIVE.matcher(css).find() ? e.value() : css);
            boolean bound = e.through().stream()
                    .anyMatch(view.rendered.theme().palette().properties()::containsKey);
            if (bound || !recipe.hasWhatItInherits() && e.inheritedFrom() != null) {
                // A setting decides it already; or the whole page does, not its column.
                return Optional.empty();
            }
            if (e.winner() != null && e.winner().isInTheme()) {
                where.add(e.winner().file() + ", line " + e.winner().line());
            }
        }
        String widest = declared.get(PageParts.WIDTH);
        boolean nobody = where.isEmpty() && !q.property().equals("position");
        // Nobody ever decided it, so nobody would look for it.
        if (nobody || comesFromOutside(q) && !isFree(q)) {
            return Optional.empty();
        }
        String file = where.isEmpty()
                ? view.page.source().file()
                : where.iterator().next().replaceAll(", line \\d+$", "");
        Kind kind = kind(q.property(), widest, file).orElse(null);
        Value value = kind == null ? null : kind.readCss(widest).orElse(null);
        if (value == null) {
            return Optional.empty();
        }
        Map<String, Value> bands = new LinkedHashMap<>();
        String turns = perBand(declared, kind, value, bands);
        Explanation.Cause wide = view.why(PageParts.WIDTH, q).winner();
        if (!turns.isEmpty() && (wide == null || !wide.isInTheme() || !view.lasts(wide.file()))) {
            // A rule of a library that turns with the window can only be beaten as a whole.
            return Optional.empty();
        }
        return Optional.of(new Offer(
                q,
                Offer.Way.READ,
                allowed(kind, value, bands, q),
                value,
                bands,
                words(declared, bands),
                List.copyOf(where),
                turns,
                !turns.isEmpty(),
                ""));
    }

    /** Whether another rule decides it in the state than without; else there is nothing to ask for in the state. */
    private boolean isOfItsState(Question q) {
        if (q.states().isEmpty()) {
            return true;
        }
        Explanation.Cause in = view.why(PageParts.WIDTH, q).winner();
        // A rule of a library would have to be beaten in this state alone; it is not offered.
        return in != null
                && in.isInTheme()
                && view.lasts(in.file())
                && !PartView.isSame(view.why(view.of(q), q.property()).winner(), in);
    }

    private boolean comesFromOutside(Question q) {
        Element whole = view.element();
        Element holder = view.why(view.of(q), q.property()).inheritedFrom();
        return q.element() != view.index
                && holder != null
                && holder != whole
                && !holder.parents().contains(whole);
    }

    /** Whether none of those that a rule for all alike would find has a rule of its own. */
    private boolean isFree(Question q) {
        return SelectorList.parse(Alike.to(view.page, view.element(), view.of(q))).stream()
                .allMatch(list -> {
                    SelectorMatcher matcher = new SelectorMatcher(view.page.document(), States.ANY);
                    return view.elements.stream()
                            .skip(1)
                            .filter(e -> matcher.matches(list, e))
                            .allMatch(e -> view.why(e, q.property()).inheritedFrom() != null);
                });
    }

    private static Optional<Kind> kind(String property, String css, String file) {
        return switch (property) {
            case "position" -> position(css);
            case "align-items" ->
                choice(
                        css,
                        Map.of(
                                "start",
                                "top",
                                "flex-start",
                                "top",
                                "center",
                                "middle",
                                "end",
                                "bottom",
                                "flex-end",
                                "bottom"));
            case "text-align" ->
                choice(
                        css,
                        Map.of("left", "left", "start", "left", "center", "centred", "right", "right", "end", "right"));
            default ->
                LiftedValue.of(property, css, file).stream()
                        .map(LiftedValue::kind)
                        .filter(k -> !(k instanceof ChoiceKind))
                        .findFirst();
        };
    }

    private static Optional<Kind> position(String css) {
        if (!Set.of("static", "relative", "sticky", "fixed").contains(css)) {
            return Optional.empty();
        }
        String away = css.equals("relative") ? "relative" : "static";
        List<ChoiceKind.Option> options = new ArrayList<>(List.of(
                new ChoiceKind.Option(away, "it scrolls away", away),
                new ChoiceKind.Option("sticky", "it stays in view", "sticky")));
        if (css.equals("fixed")) {
            options.add(new ChoiceKind.Option("fixed", "it stays, over the page", "fixed"));
        }
        return Optional.of(new ChoiceKind(options));
    }

    /** Of keywords that mean the same that one which stands there, so that the default is what is written. */
    private static Optional<Kind> choice(String now, Map<String, String> labels) {
        if (!labels.containsKey(now)) {
            return Optional.empty();
        }
        boolean flex = now.startsWith("flex-");
        Map<String, ChoiceKind.Option> byLabel = new LinkedHashMap<>();
        for (String label : List.of("top", "left", "middle", "centred", "bottom", "right")) {
            labels.entrySet().stream()
                    .filter(e -> e.getValue().equals(label))
                    .map(Map.Entry::getKey)
                    .sorted(Comparator.comparing((String k) -> !k.equals(now))
                            .thenComparing(k -> k.startsWith("flex-") != flex)
                            .thenComparing(k -> k))
                    .findFirst()
                    .ifPresent(k -> byLabel.put(label, new ChoiceKind.Option(k, label, k)));
        }
        return Optional.of(new ChoiceKind(List.copyOf(byLabel.values())));
    }

    /**
     * Fills the values of bands that differ.
     *
     * @return where a value turns inside of a band, so that only the widest stretch is bound; empty if it turns nowhere
     */
    private String perBand(Map<Integer, String> declared, Kind kind, Value value, Map<String, Value> bands) {
        Bands all = view.rendered.theme().palette().bands();
        Map<String, Set<String>> byBand = new LinkedHashMap<>();
        declared.forEach((width, css) -> byBand.computeIfAbsent(all.at(width).key(), k -> new LinkedHashSet<>())
                .add(css));
        boolean even = byBand.values().stream().allMatch(s -> s.size() == 1)
                && declared.values().stream().allMatch(css -> kind.readCss(css).isPresent());
        if (!even) {
            List<String> turns = new ArrayList<>();
            String before = null;
            for (Map.Entry<Integer, String> e : declared.entrySet()) {
                if (before != null && !before.equals(e.getValue())) {
                    turns.add(e.getKey() + " px");
                }
                before = e.getValue();
            }
            return "It turns at " + String.join(", ", turns) + " by rules of the theme. What decides it at "
                    + PageParts.WIDTH + " px follows the setting; the others stay.";
        }
        for (Band b : all.list()) {
            Set<String> css = byBand.get(b.key());
            if (css != null && b != all.widest()) {
                Value own = kind.readCss(css.iterator().next()).orElseThrow();
                if (!own.equals(value)) {
                    bands.put(b.key(), own);
                }
            }
        }
        return "";
    }

    private Kind allowed(Kind kind, Value value, Map<String, Value> bands, Question q) {
        if (kind instanceof LengthKind && SPACED.matcher(q.property()).find()) {
            Set<Value> all = new LinkedHashSet<>(bands.values());
            all.add(value);
            Optional<LengthKind> steps = SpacingSteps.of(view.rendered.theme(), view::lasts, all);
            boolean fit = steps.isPresent()
                    && all.stream()
                            .allMatch(v ->
                                    steps.get().refusal(v, Kind.Around.NOTHING).isEmpty());
            if (fit) {
                return steps.get();
            }
        }
        List<Painted> painted = List.of(new Painted(PartSelector.unique(view.page, view.of(q)), q.property(), ""));
        Kind proposed = Proposal.of(kind, value, view.rendered, colors(), painted);
        boolean all = bands.values().stream()
                .allMatch(v -> proposed.refusal(v, Kind.Around.NOTHING).isEmpty());
        return all ? proposed : kind;
    }

    private List<ColorRow> colors() {
        if (colors == null) {
            colors = ColorUsage.of(view.rendered.theme()).rows();
        }
        return colors;
    }

    private String words(Map<Integer, String> declared, Map<String, Value> bands) {
        if (bands.isEmpty()) {
            return declared.get(PageParts.WIDTH);
        }
        Bands all = view.rendered.theme().palette().bands();
        List<String> parts = new ArrayList<>();
        for (Band b : all.list()) {
            declared.entrySet().stream()
                    .filter(e -> all.at(e.getKey()) == b)
                    .findFirst()
                    .ifPresent(e -> parts.add(b.label() + " " + e.getValue()));
        }
        return String.join(", ", parts);
    }
}
