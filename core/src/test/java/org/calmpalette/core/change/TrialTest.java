package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class TrialTest {
    private static final String CSS =
            """
      :root { --ink: #123; --deep: var(--ink); --gap: 4px }
      body { color: var(--deep); font-size: 16px }
      .a { background: var(--deep); border: 1px solid }
      .a > p { padding: 1em; background: inherit }
      .b { color: #456; margin: var(--gap) }
      @media (max-width: 500px) { .b { color: #789 } }
      p::before { content: "x"; color: var(--ink) }
      #z { font-size: 2rem }
      """;
    private static final String PAGE =
            "<!doctype html><link rel=stylesheet href=a.css><div class=a><p>1<b>2</b></p><p class=b>3</div>"
                    + "<p id=z>4 <i>5</i><p class=b style='color: red'>6";

    private static Rendered rendered(String css, String page) {
        Theme theme = Themes.of("a.css", css, "index.html", page, "b.html", PAGE.replace("class=b", "class=c"));
        return new Rendered(theme);
    }

    @Test
    void lookingOnlyWhereRulesChangedFindsWhatLookingEverywhereFinds() {
        Rendered before = rendered(CSS, PAGE);
        List<String> changes = List.of(
                CSS.replace("#123", "#124"),
                CSS.replace("16px", "17px"),
                CSS.replace("4px", "5px"),
                CSS.replace("#789", "#788"),
                CSS.replace("1px solid", "1px dashed"),
                CSS.replace("--deep: var(--ink)", "--deep: var(--none, #999)"),
                CSS + ".c { color: green }",
                CSS.replace(".b { color: #456;", ".b {"),
                CSS.replace("\"x\"", "\"y\""),
                CSS.replace("2rem", "3rem"),
                ".a { background: red }" + CSS,
                CSS.replace("@media (max-width: 500px) { .b { color: #789 } }", ""),
                CSS + "p { display: flex }",
                CSS + "div { display: inline-grid }",
                CSS + "div { display: contents } body { display: flex }",
                CSS + "body { display: grid } p { float: left; position: absolute }",
                CSS + "@layer q { p { opacity: .5 } }",
                CSS.replace("#z { font-size: 2rem }", "") + "#z { font-size: 2rem }");
        for (String css : changes) {
            Trial quick = Trial.between(before, rendered(css, PAGE), false);
            Trial whole = Trial.between(before, rendered(css, PAGE), true);
            assertThat(quick.changed()).as(css).isEqualTo(whole.changed());
            assertThat(quick.properties()).as(css).containsExactlyInAnyOrderElementsOf(whole.properties());
        }
        assertThat(Trial.between(before, rendered(changes.get(0), PAGE), false).parts())
                .isGreaterThan(10);
        assertThat(Trial.between(before, rendered(CSS + "/* x */", PAGE), false).inWords())
                .isEqualTo("No part of any page looks different.");
    }

    @Test
    void aClassInTheMarkupIsSeen() {
        Trial trial = Trial.between(rendered(CSS, PAGE), rendered(CSS, PAGE.replace("id=z", "id=z class=b")), false);
        assertThat(trial.byPage()).containsExactly("index.html 2");
        assertThat(trial.inWords())
                .startsWith("2 parts of index.html look different: ")
                .contains("text colour", "margin");
    }

    private static Change without(String css, String what, int from) {
        int at = css.indexOf(what, from);
        return Change.edit("Took " + what + " out", "a.css", new Edit(at, at + what.length(), ""));
    }

    /** What is harmless alone may do harm together; what does harm alone is left out. */
    @Test
    void ofManyChangesThoseThatChangeNothingTogetherAreKept() {
        String css =
                "p { color: #111111 } p { color: #111111 } b { color: #222222 } .none { color: red } i { color: #333333 } b.x { color: #222222 }";
        Rendered before = rendered(css, "<!doctype html><link rel=stylesheet href=a.css><p>1<b class=x>2</b><i>3</i>");
        Change first = without(css, "p { color: #111111 }", 0);
        Change second = without(css, "p { color: #111111 }", 5);
        Change none = without(css, ".none { color: red }", 0);
        Change seen = without(css, "i { color: #333333 }", 0);
        Change other = without(css, "b.x { color: #222222 }", 0);
        assertThat(Trial.quiet(before, List.of(first, none, seen, second, other)))
                .containsExactly(first, none, other);
        assertThat(Trial.quiet(before, List.of(none, other))).containsExactly(none, other);
        assertThat(Trial.quiet(before, List.of(seen))).isEmpty();
        assertThat(Trial.quiet(before, List.of())).isEmpty();
    }
}
