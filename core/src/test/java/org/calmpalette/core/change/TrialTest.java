package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
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
}
