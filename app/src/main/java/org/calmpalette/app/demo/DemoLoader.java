package org.calmpalette.app.demo;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.zip.GZIPInputStream;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.sites.Drafting;
import org.calmpalette.app.sites.Editions;
import org.calmpalette.app.sites.Site;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.OwnThemes;
import org.calmpalette.app.themes.StoredTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Lift;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.change.PageBinding;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUse;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/** Loads the demo into a database that has none: two people, two themes, one site. */
@Component
class DemoLoader implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);

    private final CalmProperties calm;
    private final AccountService accounts;
    private final ThemeService themes;
    private final SiteService sites;
    private final Drafting drafting;
    private final Editions editions;
    private final OwnThemes own;

    DemoLoader(
            CalmProperties calm,
            AccountService accounts,
            ThemeService themes,
            SiteService sites,
            Drafting drafting,
            Editions editions,
            OwnThemes own) {
        this.drafting = drafting;
        this.editions = editions;
        this.calm = calm;
        this.accounts = accounts;
        this.themes = themes;
        this.sites = sites;
        this.own = own;
    }

    @Override
    public void run(ApplicationArguments arguments) throws Exception {
        if (!calm.demo()) {
            accounts.endDemoSessions();
            return;
        }
        if (calm.demoPassword().length() < AccountService.SHORTEST_PASSWORD) {
            throw new IllegalStateException("The demo needs CALM_DEMO_PASSWORD with 10 characters or more.");
        }
        SignedIn ida = accounts.demo("ida", "Ida Marlow", Role.MAKER);
        SignedIn jonas = accounts.demo("jonas", "Jonas Pell", Role.OWNER);
        if (!themes.all(ida).isEmpty()) {
            return;
        }
        long started = System.nanoTime();
        StoredTheme towpath = own.bringIn(OwnThemes.TOWPATH, ida);
        own.bringIn(OwnThemes.STARTER, ida);
        lift(
                towpath.id(),
                ida,
                u -> u.selector().equals(":root") && u.property().equals("--amber"),
                setting(
                        "signal-fill",
                        "Signal colour",
                        "Badge and buttons share it.",
                        "Everywhere",
                        "#d8a13c",
                        ColorKind.ANY),
                "Everywhere");
        lift(
                towpath.id(),
                ida,
                u -> u.selector().equals(":root") && u.property().equals("--night"),
                setting(
                        "header-fill",
                        "Header fill",
                        "Behind the name and the links at the top.",
                        "Header",
                        "#1f3347",
                        named(Map.of("#1f3347", "Night", "#24463a", "Reed", "#4a2636", "Heather"))),
                "Header");
        lift(
                towpath.id(),
                ida,
                u -> u.selector().equals(".hero"),
                setting("hero-text", "Hero text", "", "Hero", "#ffffff", swatches("#ffffff", "#f7ecd2", "#1f3347")),
                "Hero");
        lift(
                towpath.id(),
                ida,
                u -> u.selector().equals(":root") && u.property().equals("--paper"),
                setting(
                        "column-fill",
                        "Paper behind the text",
                        "",
                        "Column",
                        "#f4efe6",
                        swatches("#f4efe6", "#ffffff", "#e9eef0")),
                "Column");
        more(towpath.id(), ida);
        themes.namePoint(towpath.id(), themes.open(towpath.id(), ida).head().id(), "before the summer", ida);
        OpenTheme open = themes.open(towpath.id(), ida);
        long measured = measures(open);
        Site site = sites.create(open, "Sallowmere Ferries", "owner", "jonas", ida);
        editions.goLive(site.slug(), jonas);
        drafting.choose(site.slug(), "header-fill", "", Value.of("#24463a"), jonas);
        LOG.info(
                "demo loaded in {} ms, {} of its pages known as a browser lays them out",
                (System.nanoTime() - started) / 1_000_000,
                measured);
    }

    /**
     * What a browser measured of the pages, so that texts on pictures are told before anybody has opened Pictures. Recorded there, and
     * kept only as long as the pages are laid out as they were then.
     */
    private long measures(OpenTheme open) throws IOException {
        long known = 0;
        for (Page page : open.theme().pages()) {
            String name = "/own/towpath-measures/" + page.source().file() + ".json.gz";
            try (InputStream in = DemoLoader.class.getResourceAsStream(name)) {
                if (in != null) {
                    byte[] recorded = new GZIPInputStream(in).readAllBytes();
                    known += themes.keepRecorded(open, Measures.read(name, recorded)) ? 1 : 0;
                }
            }
        }
        return known;
    }

    /** Settings of other kinds than colour, and two schemes. */
    private void more(long theme, SignedIn me) {
        Value vh = Value.parts("value", 72, "unit", "vh");
        declaration(
                theme,
                me,
                ".hero",
                "min-height",
                Setting.of(
                                "hero-height",
                                "Height of the picture",
                                "Lower on phones, so that the piers come into view.",
                                "hero",
                                Kinds.read(
                                        "length",
                                        Value.parts(
                                                "units",
                                                new Value.Many(List.of(Value.parts(
                                                        "unit", "vh", "least", 40, "most", 90, "step", 1))))),
                                vh)
                        .withBands(Map.of("phone", new Given.Fixed(Value.parts("value", 60, "unit", "vh"))))
                        .withPerBand(true),
                "Hero");
        bind(
                theme,
                me,
                ".hero h1",
                Binding.TEXT,
                Setting.of(
                        "hero-heading",
                        "Heading",
                        "The first thing visitors read.",
                        "hero",
                        Kinds.read("line", Value.parts("least", 1, "most", 40)),
                        Value.of("Cross the mere by dusk")),
                "Hero");
        bind(
                theme,
                me,
                ".hero .button",
                Binding.SHOW,
                Setting.of("hero-button-shown", "Button in the picture", "", "hero", YesNoKind.PLAIN, Value.of(true)),
                "Hero");
        bind(
                theme,
                me,
                ".hero .button",
                Binding.HREF,
                Setting.of(
                                "hero-button-link",
                                "Where the button leads",
                                "",
                                "hero",
                                LinkKind.ANY,
                                Value.of("timetable.html"))
                        .withShown(new Setting.Shown("hero-button-shown", List.of(Value.of(true)))),
                "Hero");
        declaration(
                theme,
                me,
                ".site-header",
                "position",
                Setting.of(
                        "header-stays",
                        "Header stays in view",
                        "If not, it scrolls away with the page.",
                        "header",
                        new YesNoKind("fixed", "absolute"),
                        Value.of(true)),
                "Header");
        declaration(
                theme,
                me,
                ".column",
                "padding",
                Setting.of(
                                "column-room",
                                "Room around the text",
                                "",
                                "column",
                                Kinds.read(
                                        "spacing",
                                        Value.parts(
                                                "units",
                                                new Value.Many(List.of(Value.parts(
                                                        "unit", "px", "least", 8, "most", 64, "step", 4))))),
                                sides(32, 24))
                        .withBands(Map.of("phone", new Given.Fixed(sides(20, 16)))),
                "Column");
        declaration(
                theme,
                me,
                ".card",
                "border",
                Setting.of(
                        "card-edge",
                        "Edge of the pier cards",
                        "",
                        "pier-cards",
                        Kinds.read("border", Value.parts("none", true)),
                        Value.parts(
                                "width", Value.parts("value", 1, "unit", "px"), "style", "solid", "color", "#dcd5c6")),
                "Pier cards");
        declaration(
                theme,
                me,
                "body",
                "background",
                Setting.of(
                        "river-picture",
                        "Picture behind everything",
                        "A wide one, so that it stays sharp on large screens.",
                        "page",
                        Kinds.read(
                                "background",
                                Value.parts(
                                        "picture",
                                        Value.parts("leastWidth", 1200, "none", true),
                                        "fixed",
                                        Value.parts("repeat", "no-repeat", "attachment", "scroll", "size", "auto"))),
                        Value.parts(
                                "color",
                                "#c9cdd2",
                                "picture",
                                "img/river-dusk.jpg",
                                "repeat",
                                "no-repeat",
                                "position",
                                "left top",
                                "size",
                                "auto",
                                "attachment",
                                "scroll",
                                "overlay",
                                "#000000",
                                "strength",
                                0)),
                "Page");
        change(theme, me, t -> Change.of("Marked the ferry in img/river-dusk.jpg")
                .withPalette(
                        t,
                        t.palette()
                                .withSubject(new Subject(
                                        "img/river-dusk.jpg",
                                        "the ferry",
                                        new BigDecimal("80.4"),
                                        new BigDecimal("65.8"),
                                        new BigDecimal("10.1"),
                                        new BigDecimal("15.6")))));
        declaration(
                theme,
                me,
                ".button",
                "color",
                setting(
                                "button-text",
                                "Text of the buttons",
                                "Turns dark or light by itself, so that it stays readable.",
                                "Everywhere",
                                "#1d1a12",
                                ColorKind.ANY)
                        .withGiven(new Given.Follows("signal-fill", new Given.Readable("#1d1a12", "#ffffff"))),
                "Everywhere");
        change(
                theme,
                me,
                t -> PaletteChange.schemes(
                        t,
                        List.of(
                                new Scheme(
                                        "reed",
                                        "Reed",
                                        Map.of(
                                                "header-fill",
                                                Chosen.of("#24463a"),
                                                "column-fill",
                                                Chosen.of("#e9eef0"))),
                                new Scheme(
                                        "heather",
                                        "Heather",
                                        Map.of(
                                                "header-fill",
                                                Chosen.of("#4a2636"),
                                                "hero-text",
                                                Chosen.of("#f7ecd2")))),
                        "Schemes Reed and Heather"));
        change(theme, me, t -> PaletteChange.translated(t, "de", GERMAN));
    }

    /** What owners read of it, for those who read German. */
    private static final Map<String, String> GERMAN = Map.ofEntries(
            Map.entry("Header", "Kopf"),
            Map.entry("Hero", "Auftakt"),
            Map.entry("Column", "Textspalte"),
            Map.entry("Pier cards", "Karten der Anleger"),
            Map.entry("Page", "Seite"),
            Map.entry("Signal colour", "Signalfarbe"),
            Map.entry("Badge and buttons share it.", "Plakette und Knöpfe teilen sie sich."),
            Map.entry("Header fill", "Füllung des Kopfs"),
            Map.entry("Behind the name and the links at the top.", "Hinter dem Namen und den Links oben."),
            Map.entry("Hero text", "Text des Auftakts"),
            Map.entry("Paper behind the text", "Papier hinter dem Text"),
            Map.entry("Height of the picture", "Höhe des Bilds"),
            Map.entry(
                    "Lower on phones, so that the piers come into view.",
                    "Auf Telefonen niedriger, damit die Anleger zu sehen sind."),
            Map.entry("The first thing visitors read.", "Das Erste, was zu lesen ist."),
            Map.entry("Button in the picture", "Knopf im Bild"),
            Map.entry("Header stays in view", "Kopf bleibt im Blick"),
            Map.entry("If not, it scrolls away with the page.", "Sonst scrollt er mit der Seite weg."),
            Map.entry("Room around the text", "Abstand um den Text"),
            Map.entry("Edge of the pier cards", "Rand der Karten"),
            Map.entry("Picture behind everything", "Bild hinter allem"),
            Map.entry(
                    "A wide one, so that it stays sharp on large screens.",
                    "Ein breites, damit es auf großen Bildschirmen scharf bleibt."),
            Map.entry("the ferry", "die Fähre"),
            Map.entry("Text of the buttons", "Text der Knöpfe"),
            Map.entry(
                    "Turns dark or light by itself, so that it stays readable.",
                    "Wird von selbst dunkel oder hell, damit er lesbar bleibt."),
            Map.entry("Night", "Nacht"),
            Map.entry("Reed", "Schilf"),
            Map.entry("Heather", "Heide"));

    private static Value sides(int down, int across) {
        Value top = Value.parts("value", down, "unit", "px");
        Value side = Value.parts("value", across, "unit", "px");
        return Value.parts("top", top, "right", side, "bottom", top, "left", side);
    }

    private void change(long theme, SignedIn me, java.util.function.Function<Theme, Change> change) {
        themes.change(theme, themes.open(theme, me).head().id(), me, change);
    }

    private void declaration(long theme, SignedIn me, String selector, String property, Setting setting, String place) {
        change(theme, me, t -> {
            String[] file = new String[1];
            int[] start = new int[1];
            t.sheets().stream().filter(p -> p.path().endsWith("towpath.css")).forEach(p -> p.sheet()
                    .eachDeclaration((d, around) -> {
                        boolean wanted = d.property().equals(property)
                                && !around.isEmpty()
                                && p.sheet()
                                        .prelude(around.get(around.size() - 1))
                                        .equals(selector);
                        if (wanted && file[0] == null) {
                            file[0] = p.path();
                            start[0] = p.offset() + p.sheet().tokens().start(d.first());
                        }
                    }));
            return LiftedValue.lift(t, file[0], start[0], setting, new Place(setting.place(), place));
        });
    }

    private void bind(long theme, SignedIn me, String selector, Binding binding, Setting setting, String place) {
        change(theme, me, t -> {
            Page page = t.pages().get(0);
            return PageBinding.bind(
                    t,
                    page,
                    page.document().selectFirst(selector),
                    binding,
                    setting,
                    new Place(setting.place(), place),
                    false);
        });
    }

    private static Setting setting(String key, String label, String help, String place, String value, Kind kind) {
        return Setting.of(key, label, help, Place.keyOf(place), kind, Value.of(value));
    }

    /** Swatches that are called otherwise than what their colours are. */
    private static Kind named(Map<String, String> names) {
        return new ColorKind(names.keySet().stream().sorted().toList(), null, List.of(), false, names);
    }

    private static Kind swatches(String... values) {
        return new ColorKind(List.of(values), null, List.of(), false);
    }

    private void lift(long theme, SignedIn me, Predicate<ColorUse> which, Setting setting, String place) {
        OpenTheme open = themes.open(theme, me);
        Set<String> uses = open.colors().rows().stream()
                .flatMap(r -> r.uses().stream())
                .filter(which)
                .map(ColorUse::id)
                .collect(Collectors.toSet());
        themes.change(
                theme, open.head().id(), me, t -> Lift.lift(t, uses, setting, new Place(Place.keyOf(place), place)));
    }
}
