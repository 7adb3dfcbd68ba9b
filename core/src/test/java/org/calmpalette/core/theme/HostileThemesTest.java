package org.calmpalette.core.theme;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartIndex;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every hostile theme gets an answer in words for all that is asked about a theme, and keeps its bytes. */
@Timeout(value = 5, unit = TimeUnit.MINUTES)
class HostileThemesTest {
    /** What is set aside or cut short in each, in words that the message has to hold; those not named are looked at whole. */
    private static final Map<String, String> BEYOND = Map.ofEntries(
            Map.entry("8 MB stylesheet on one line", "looked at up to 2.0 MB"),
            Map.entry("8 MB list of selectors", "looked at up to 2.0 MB"),
            Map.entry("140,000 rules for one class", "140,000 selectors"),
            Map.entry("20 MB page", "looked at up to 3.0 MB"),
            Map.entry("page of 3 MB in small elements", "20,000 elements"),
            Map.entry("page 50,000 elements deep", "20,000 elements"),
            Map.entry("1,900 pages", "50,000 elements"),
            Map.entry("selectors that repeat what is around them", "repeats what is nested around it"),
            Map.entry("pages in UTF-16 and UTF-32 without a mark, ISO-2022-JP", "byte order mark"));

    static Stream<String> names() {
        // The one that uses up every share is tried in the application only, to keep these quick.
        return HostileThemes.all().keySet().stream().filter(n -> !n.endsWith("of 5,000 elements"));
    }

    @ParameterizedTest
    @MethodSource("names")
    void getAnAnswer(String name) {
        Supplier<? extends java.util.SortedMap<String, byte[]>> made =
                HostileThemes.all().get(name);
        ThemeFiles files = ThemeFiles.of(new java.util.TreeMap<>(made.get()));
        Theme theme = Theme.read(files, "T");
        Rendered rendered = new Rendered(theme);
        Survey survey = Survey.of(rendered, ColorUsage.of(theme), (done, total, what) -> {}, () -> false);
        List<String> beyond = survey.findings().stream()
                .filter(f -> f.group() == Finding.Group.UNSEEN || f.kind() == Finding.Kind.ENCODING)
                .map(f -> f.file() + ": " + f.message())
                .toList();
        if (BEYOND.containsKey(name)) {
            assertThat(beyond).anySatisfy(message -> assertThat(message).contains(BEYOND.get(name)));
        }
        for (SetAside a : theme.aside()) {
            assertThat(files.has(a.path())).isTrue();
            assertThat(theme.pages()).noneMatch(p -> p.source().file().equals(a.path()));
        }
        if (!theme.pages().isEmpty()) {
            Page page = theme.pages().get(0);
            int part = page.elements().indexOf(page.document().selectFirst("h1"));
            try {
                PartLook look = Budget.within(
                        Duration.ofSeconds(4),
                        20_000_000,
                        () -> false,
                        () -> PartLook.of(
                                rendered,
                                Readers.of(theme),
                                new PartIndex(theme.pages()),
                                page,
                                part,
                                Viewport.of(1440, 900),
                                Set.of()));
                assertThat(look.name()).startsWith("h1");
            } catch (BeyondLimitException told) {
                assertThat(told.why()).containsAnyOf("takes longer", "grow too long");
            }
        }
        ThemeFiles built =
                ThemeFiles.overlaid(files, ThemeBuild.build(theme, Map.of()).files());
        theme.aside().forEach(a -> assertThat(built.read(a.path())).isEqualTo(files.read(a.path())));
    }

    /** CSS Values 4, sections 10.9 and 10.12; the values are those of Chromium 156's computed style. */
    @Test
    void numbersBeyondAllBoundsAreWhatBrowsersMakeOfThem() {
        List<String[]> cases = List.of(
                new String[] {"margin-left", "1e400px", "3.35544e+07px"},
                new String[] {"margin-left", "calc(1px/0)", "3.35544e+07px"},
                new String[] {"margin-left", "calc(-infinity * 1px)", "-3.35544e+07px"},
                new String[] {"margin-left", "calc(0/0 * 1px)", "0px"},
                new String[] {"margin-left", "calc(1px + infinity * 1px - infinity * 1px)", "0px"},
                new String[] {"margin-left", "min(infinity * 1px, 5px)", "5px"},
                new String[] {"margin-left", "round(5px, 0px)", "0px"},
                new String[] {"margin-left", "1e38em", "3.35544e+07px"},
                new String[] {"padding-left", "calc(-infinity * 1px)", "0px"},
                new String[] {"opacity", "calc(0/0)", "0"},
                new String[] {"opacity", "calc(infinity)", "1"},
                new String[] {"font-weight", "calc(infinity)", "1000"},
                new String[] {"font-weight", "calc(0/0)", "1"},
                new String[] {"font-size", "1e400px", "10000px"},
                new String[] {"background-size", "calc(infinity * 1px) 1e400px", "3.35544e+07px 3.35544e+07px"},
                new String[] {"background-position-x", "calc(infinity * 1%)", "3.40282e+38%"},
                new String[] {"color", "rgb(1e400 calc(0/0) 10)", "rgb(255, 0, 10)"},
                new String[] {"color", "hsl(calc(infinity) 50% 50%)", "rgb(191, 64, 64)"},
                new String[] {"color", "rgb(0 0 0 / calc(0/0))", "rgba(0, 0, 0, 0)"});
        for (String[] c : cases) {
            Theme theme = Themes.of("index.html", "<style>p{" + c[0] + ":" + c[1] + "}</style><p>x");
            Page page = theme.pages().get(0);
            assertThat(new Rendered(theme)
                            .styles(page, Viewport.of(800, 600), States.NONE)
                            .of(page.document().selectFirst("p"))
                            .computed(c[0]))
                    .as(c[0] + ": " + c[1])
                    .isEqualTo(c[2]);
        }
    }

    @Test
    void aLongChainOfCustomPropertiesHasAValueAndACircleNone() {
        Theme chain = Theme.read(
                ThemeFiles.of(new java.util.TreeMap<>(HostileThemes.all()
                        .get("chain of 5,000 custom properties")
                        .get())),
                "T");
        Page page = chain.pages().get(0);
        assertThat(new Rendered(chain)
                        .styles(page, Viewport.of(800, 600), States.NONE)
                        .of(page.document().selectFirst(".a"))
                        .computed("color"))
                .isEqualTo("rgb(255, 0, 0)");
        Theme circle = Theme.read(
                ThemeFiles.of(new java.util.TreeMap<>(HostileThemes.all()
                        .get("circle of 5,000 custom properties")
                        .get())),
                "T");
        Page round = circle.pages().get(0);
        assertThat(new Rendered(circle)
                        .styles(round, Viewport.of(800, 600), States.NONE)
                        .of(round.document().selectFirst(".a"))
                        .variable("--v7"))
                .isEmpty();
        assertThat(Survey.of(circle).findings())
                .extracting(Finding::kind)
                .containsExactly(Finding.Kind.CIRCULAR_VARIABLE);
    }

    @Test
    void aRuleIsNotCalledDeadWhileAPageWasNotLookedAt() {
        String css = ".used{color:#123}.only-there{color:#321}";
        Theme whole = Themes.of("a.css", css, "index.html", "<link rel=stylesheet href=a.css><p class=used>x");
        assertThat(Survey.of(whole).findings()).extracting(Finding::kind).contains(Finding.Kind.DEAD_RULE);
        Theme part = Themes.of(
                "a.css",
                css,
                "index.html",
                "<link rel=stylesheet href=a.css><p class=used>x",
                "long.html",
                "<p>".repeat(30_000));
        assertThat(Survey.of(part).findings())
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.DEAD_RULE)
                .contains(Finding.Kind.LIMIT);
    }

    @Test
    void workThatIsCancelledEnds() {
        Theme theme = Theme.read(
                ThemeFiles.of(new java.util.TreeMap<>(HostileThemes.all()
                        .get("19,000 elements under 2,000 rules")
                        .get())),
                "T");
        AtomicInteger asked = new AtomicInteger();
        assertThatThrownBy(() -> Survey.of(
                        new Rendered(theme), ColorUsage.of(theme), (d, t, w) -> {}, () -> asked.incrementAndGet() > 3))
                .isInstanceOf(CancellationException.class);
    }

    /** What is asked about one text of such a theme takes long, so what it took is looked at after each. */
    @Test
    void eachTextThatIsAskedAboutIsAStepOfItsOwn() {
        int texts = 40;
        Theme theme = Themes.of("index.html", "<style>p{color:#123}</style>" + "<p>x".repeat(texts));
        AtomicInteger looks = new AtomicInteger();
        Budget.within(
                Duration.ofHours(1), Long.MAX_VALUE, () -> looks.incrementAndGet() < 0, () -> SafeArea.Texts.of(theme));
        assertThat(looks).hasValueGreaterThanOrEqualTo(texts);
    }

    @Test
    void anOuterBudgetHoldsInsideAnInnerOne() {
        List<String> said = new ArrayList<>();
        assertThatThrownBy(() -> Budget.within(
                        Duration.ofMillis(20),
                        () -> Budget.within(Duration.ofHours(1), () -> {
                            while (said.isEmpty()) {
                                Budget.step();
                            }
                            return null;
                        })))
                .isInstanceOf(BeyondLimitException.class)
                .hasMessageContaining("20 milliseconds");
        assertThatThrownBy(() -> Budget.within(Duration.ofHours(1), 100, () -> false, () -> {
                    Budget.made(60);
                    Budget.made(60);
                    return null;
                }))
                .isInstanceOf(BeyondLimitException.class)
                .hasMessageContaining("grow too long");
        // Without a budget nothing ends.
        Budget.made(Integer.MAX_VALUE);
        Budget.step();
    }
}
