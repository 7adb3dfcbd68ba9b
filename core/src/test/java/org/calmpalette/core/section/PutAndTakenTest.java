package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Whatever is done with sections on a page: what the maker wrote stays as it is, and without them the page is as it was. */
class PutAndTakenTest {
    /** Pages as people write them: in one line, with other line ends, without a main, with a wrapper, with tags that are left out. */
    static List<String> pages() {
        List<String> all = new ArrayList<>(
                List.of(
                        "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><main><h1>One</h1><p>Two</p></main></body></html>",
                        "<!doctype html>\n<html>\n<head>\n\t<link rel=stylesheet href=a.css>\n</head>\n<body>\n\t<header>H</header>\n\t<main>\n\t\t<h1>One</h1>\n\n\t\t<!-- kept -->\n\t\t<p>Two</p>\n\t</main>\n\t<footer>F</footer>\n</body>\n</html>\n",
                        "<!doctype html>\n<head><link rel=stylesheet href=a.css></head>\n<body>\n  <h1>One</h1>\n  <p>Two\n  <p>Three</p>\n  <script>1</script>\n</body>\n",
                        "<!doctype html>\n<html><head><link rel=stylesheet href=a.css></head>\n<body>\n<div class=page>\n  <nav>N</nav>\n  <section><h2>Before</h2></section>\n  <main></main>\n  <section><h2>After</h2></section>\n</div>\n</body></html>",
                        "<!doctype html>\n<html><head><link rel=stylesheet href=a.css></head><body>\n  <main>\n    text <b>x</b> more\n    <pre>\n a\n  b</pre>\n  </main> <aside>A</aside>\n</body></html>"));
        all.add(all.get(1).replace("\n", "\r\n"));
        all.add("<link rel=stylesheet href=a.css><h1>One</h1> <p>Two</p>\n<p>Three");
        all.add("<main>\n</main><link rel=stylesheet href=a.css>");
        all.add(
                "<link rel=stylesheet href=a.css>\n<header>H</header>\n<main><div>\n  <p>One</p>\n  <div></div>\n</div>\n"
                        + "<table><tr><td>1</td><td>\n  <p>2</p>\n</td></tr></table></main>\n<aside><form><b>x</b></form></aside>\n");
        return all;
    }

    @Tag("generated")
    @ParameterizedTest
    @MethodSource("pages")
    void withoutItsSectionsAPageIsAsItWas(String html) {
        int taken = 0;
        int refusedSteps = 0;
        for (int seed = 0; seed < Generated.times(3); seed++) {
            Random random = Generated.random(seed);
            Theme theme = Themes.of("index.html", html, "a.css", "");
            List<String> done = new ArrayList<>();
            for (int step = 0; step < 12; step++) {
                try {
                    theme = step(theme, random, done);
                    taken++;
                } catch (BadInputException refused) {
                    done.add(refused.getMessage());
                    refusedSteps++;
                }
                Page page = theme.pages().get(0);
                assertThat(page.document().select("[data-section] [data-section]"))
                        .as("%s", done)
                        .isEmpty();
                assertThat(Sections.names(theme))
                        .as("%s", done)
                        .hasSameSizeAs(page.document().select("[data-section]"));
            }
            for (String name : Sections.names(theme)) {
                theme = Sections.removed(theme, theme.pages().get(0), name).applied(theme);
            }
            assertThat(Themes.text(theme.files(), "index.html"))
                    .as("seed %d: %s", seed, done)
                    .isEqualTo(html);
            assertThat(theme.files().paths())
                    .as("seed %d: no sheet and no picture is left", seed)
                    .isSubsetOf("index.html", "a.css", "palette.json");
            assertThat(theme.palette().settings()).isEmpty();
        }
        assertThat(taken)
                .as("steps that were made, of %d", taken + refusedSteps)
                .isGreaterThan(8 * Generated.times(3));
    }

    private static Theme step(Theme theme, Random random, List<String> done) {
        Page page = theme.pages().get(0);
        List<Blocks.Block> blocks =
                Blocks.of(theme, page, random.nextInt(page.elements().size()));
        List<Blocks.Block> sections =
                blocks.stream().filter(Blocks.Block::isSection).toList();
        if (sections.isEmpty() || random.nextInt(3) == 0) {
            Blocks.Block some = blocks.isEmpty() ? null : blocks.get(random.nextInt(blocks.size()));
            int before = random.nextInt(4) == 0
                    ? Blocks.AFTER_MAIN
                    : some == null || random.nextInt(3) == 0
                            ? 0
                            : some.canBeFilled() && random.nextBoolean() ? Blocks.endOf(some.at()) : some.at();
            done.add("put before " + before);
            SectionKit kit = SectionsTest.kit(random.nextBoolean() ? "notice" : "cards");
            return Sections.put(theme, kit, page, "", before).applied(theme);
        }
        Blocks.Block one = sections.get(random.nextInt(sections.size()));
        done.add(one.name());
        return switch (random.nextInt(4)) {
            case 0 -> {
                done.add("moved");
                yield Blocks.moved(theme, page, one.at(), random.nextBoolean() ? 1 : -1)
                        .applied(theme);
            }
            case 1 -> {
                done.add("placed");
                yield Blocks.placed(
                                theme,
                                page,
                                one.at(),
                                blocks.get(random.nextInt(blocks.size())).at())
                        .applied(theme);
            }
            case 2 -> {
                done.add("copied");
                yield Sections.copied(theme, SectionsTest.kit(one.kind()), page, one.name())
                        .applied(theme);
            }
            default -> {
                done.add("removed");
                yield Sections.removed(theme, page, one.name()).applied(theme);
            }
        };
    }
}
