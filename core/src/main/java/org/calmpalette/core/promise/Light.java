package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.Srcset;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Image;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * That the pictures of each page weigh no more together than its maker promises at any width, whatever of the theme's pictures is chosen.
 * Counted is what a browser asks for: backgrounds of parts that are shown, pictures of the page (of several candidates the heaviest) and
 * posters; not films, and not drawings inside of the page. A picture of the page counts where it is hidden as well: browsers fetch it.
 */
final class Light {
    private static final int HEIGHT = 900;

    private final Theme theme;
    /** In bytes. */
    private final long limit;

    private final List<String> pictures;
    private final ColorExpression.Choices words;
    private final Following following;
    private final Map<List<Object>, Set<String>> inMarkup = new HashMap<>();

    private Light(Theme theme) {
        this.theme = theme;
        this.limit = 1_000L * theme.palette().thresholds().pictures();
        Set<String> sheets = Set.of(Theme.SETTINGS_CSS, Theme.PALETTE_CSS);
        this.following = new Following(
                theme,
                new ColorExpression.Choices(
                        Set.of(), Set.of(), theme.palette().properties().keySet(), sheets));
        this.words = new ColorExpression.Choices(
                Set.of(),
                Set.of(),
                theme.palette().settings().stream()
                        .filter(x -> x.kind() instanceof ChoiceKind)
                        .map(Setting::property)
                        .collect(Collectors.toSet()),
                sheets);
        this.pictures = theme.media().paths().stream()
                .filter(p -> theme.media()
                        .facts(p)
                        .filter(f -> PictureKind.FORMATS.contains(f.format()))
                        .isPresent())
                .sorted(Comparator.<String>comparingLong(p ->
                                theme.media().facts(p).map(MediaFacts::bytes).orElse(0L))
                        .reversed())
                .toList();
    }

    static List<Answer> of(Theme theme) {
        Light light = new Light(theme);
        long together = light.pictures.stream().mapToLong(light::bytes).sum();
        // Not even all of them together would be too much.
        return together <= light.limit
                ? List.of(Answer.kept(Promise.LIGHT, Answer.Subject.theme(theme)))
                : theme.pages().stream().map(light::page).toList();
    }

    private long bytes(String path) {
        return theme.media().facts(path).map(MediaFacts::bytes).orElse(0L);
    }

    private long bytes(Set<String> paths) {
        return paths.stream().mapToLong(this::bytes).sum();
    }

    /** A setting with the pictures that it may show, the heaviest first; at least one. */
    private record Showing(Setting setting, List<String> allowed) {}

    private Answer page(Page page) {
        List<Showing> settings = theme.palette().settings().stream()
                .filter(s -> value(s, "") != null)
                .map(s -> new Showing(s, allowed(s)))
                .filter(h -> !h.allowed().isEmpty())
                .toList();
        return Readable.widths(theme).stream()
                .map(width -> at(page, width, settings))
                .min(Comparator.comparing(Answer::state))
                .orElseThrow();
    }

    private Answer at(Page page, int width, List<Showing> settings) {
        Answer.Subject subject = new Answer.Subject(
                page.source().file(), -1, "html", page.document().title(), width);
        long made = bytes(loads(page, width, Map.of(), true));
        if (made > limit) {
            return Answer.broken(Promise.LIGHT, subject, Map.of(), told(made, width) + ".");
        }
        // A choice may show what is hidden as made, and put back what is taken out.
        long most = bytes(loads(page, width, Map.of(), false));
        Map<String, Value> together = new TreeMap<>();
        Set<String> taken = new HashSet<>();
        for (Showing h : settings) {
            String heaviest = h.allowed().get(0);
            Set<String> with = loads(
                    page, width, Map.of(h.setting().key(), h.setting().chosen(value(h.setting(), heaviest))), false);
            if (with.contains(heaviest)) {
                most += bytes(heaviest);
                // The same picture twice is asked for once, so each gets another one.
                h.allowed().stream().filter(p -> !taken.contains(p)).findFirst().ifPresent(p -> {
                    taken.add(p);
                    together.put(h.setting().key(), value(h.setting(), p));
                });
            }
        }
        boolean any = !page.document()
                        .select("[data-setting-items] [data-setting-src]")
                        .isEmpty()
                || followsAWord(page, width);
        most += any ? pictures.stream().mapToLong(this::bytes).sum() : 0;
        if (most <= limit) {
            return Answer.kept(Promise.LIGHT, subject);
        }
        Map<String, Chosen> chosen = theme.palette().chosen(together);
        long reached = bytes(loads(page, width, chosen, true));
        boolean allowed =
                Effective.of(theme.palette(), chosen, theme.media()).leftOut().isEmpty();
        return reached > limit && allowed
                ? Answer.broken(Promise.LIGHT, subject, together, told(reached, width) + ".")
                : Answer.unproven(
                        Promise.LIGHT,
                        subject,
                        told(made, width) + " as made, and with other choices at most " + kilobytes(most)
                                + (any ? ", as items or a choice may show any picture" : ""));
    }

    private String told(long bytes, int width) {
        return "Its pictures weigh " + kilobytes(bytes) + " together at " + width + " px, and " + kilobytes(limit)
                + " are the most that is promised";
    }

    private static String kilobytes(long bytes) {
        return String.format(Locale.ROOT, "%,d kB", Math.round(bytes / 1000.0));
    }

    /** What a setting would be with a picture; null if it holds none. */
    private static Value value(Setting s, String path) {
        if (s.kind() instanceof PictureKind) {
            return Value.of(path);
        }
        String part = s.kind() instanceof BackgroundKind ? "picture" : s.kind() instanceof VideoKind ? "poster" : "";
        return part.isEmpty() || !(s.given() instanceof Given.Fixed f) || !(f.value() instanceof Value.Parts parts)
                ? null
                : parts.with(part, Value.of(path));
    }

    /** The pictures that a setting may show, the heaviest first. */
    private List<String> allowed(Setting s) {
        Effective made = Effective.of(theme.palette(), Map.of(), theme.media());
        return pictures.stream()
                .filter(p -> s.kind()
                        .refusal(
                                value(s, p), made.around(theme.palette().bands().widest()))
                        .isEmpty())
                .toList();
    }

    /** Whether a background follows a choice among words, which may be addresses. */
    private boolean followsAWord(Page page, int width) {
        PageStyles styles = new Rendered(theme, Map.of()).styles(page, Viewport.of(width, HEIGHT), States.NONE);
        return !words.others().isEmpty()
                && page.elements().stream()
                        .filter(e -> e != page.document())
                        .flatMap(e -> Stream.of(styles.of(e), styles.of(e, "before"), styles.of(e, "after")))
                        .anyMatch(s -> ColorExpression.follows(s, "background-image", words));
    }

    /**
     * Paths of the pictures that a browser asks for.
     *
     * @param shown whether only what is shown counts; else all that any choice may show as well
     */
    private Set<String> loads(Page page, int width, Map<String, Chosen> choices, boolean shown) {
        Set<String> all = new TreeSet<>(
                inMarkup.computeIfAbsent(List.of(page.source().file(), choices), k -> markup(page, choices)));
        if (!shown) {
            all.addAll(pictures(page));
        }
        Effective values = ThemeBuild.chosen(theme, choices);
        Band band = theme.palette().bands().at(width);
        PageStyles styles = new Rendered(theme, choices).styles(page, Viewport.of(width, HEIGHT), States.NONE);
        for (Element e : page.elements()) {
            Budget.step();
            boolean hidden = styles.isHidden(e) || isOff(e, values, band);
            if (e != page.document() && (!hidden || !shown && following.mayBeShown(styles, e))) {
                Stream.of(styles.of(e), styles.of(e, "before"), styles.of(e, "after"))
                        .flatMap(s -> s.backgroundLayers().orElse(List.of()).stream())
                        .map(BackgroundLayer::image)
                        .filter(Image.Url.class::isInstance)
                        .map(i -> ((Image.Url) i).address())
                        .forEach(all::add);
            }
        }
        return all;
    }

    /** Whether a choice takes a part, or what is around it, out of a band. */
    private boolean isOff(Element e, Effective values, Band band) {
        for (Element a = e; a != null; a = a.parent()) {
            Optional<Setting> shows = theme.palette().setting(a.attr(Binding.SHOW.attribute()));
            if (shows.isPresent() && values.value(shows.get(), band) instanceof Value.Flag f && !f.on()) {
                return true;
            }
        }
        return false;
    }

    /** Those that stand in the page, filled with the choices. */
    private Set<String> markup(Page page, Map<String, Chosen> choices) {
        String file = page.source().file();
        byte[] built = BoundPage.isBound(page)
                ? ThemeBuild.build(theme, choices).files().get(file)
                : null;
        return pictures(built == null ? page : Page.read(file, built));
    }

    private Set<String> pictures(Page filled) {
        String file = filled.source().file();
        Set<String> all = new TreeSet<>();
        for (Element e : filled.elements()) {
            boolean inPicture = e.parent() != null && e.parent().normalName().equals("picture");
            switch (e.normalName()) {
                case "img" ->
                    heaviest(file, inPicture ? e.parent().children().stream() : Stream.of(e))
                            .ifPresent(all::add);
                case "video" -> resolve(file, e.attr("poster")).ifPresent(all::add);
                default -> {}
            }
        }
        return all;
    }

    /** Of all candidates the heaviest: which one a browser takes it says itself. */
    private Optional<String> heaviest(String file, Stream<Element> candidates) {
        List<String> addresses = new ArrayList<>();
        candidates.forEach(e -> {
            addresses.add(e.attr("src"));
            Srcset.read(e.attr("srcset")).forEach(c -> addresses.add(c.url()));
        });
        return addresses.stream().flatMap(a -> resolve(file, a).stream()).max(Comparator.comparingLong(this::bytes));
    }

    private static Optional<String> resolve(String file, String address) {
        return address.isBlank() ? Optional.empty() : Paths.resolve(file, address);
    }
}
