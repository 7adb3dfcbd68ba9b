package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;

class PartSelectorTest {
    private static final Page PAGE = Page.read(
            "index.html",
            """
      <!doctype html><html><body><header id=top><nav><a class="nav here">a</a><a class=nav>b</a></nav></header>
      <main><p>1</p><p class="big 2x">2</p><div class=card><p>3</p><p>4</p></div><div class=card><p>5</p><ul><li>6<li>7</ul></div>
      <b id="a:b">8</b><b id=dup>9</b><b id=dup>10</b></main><footer><p>11</p></footer></body></html>
      """
                    .getBytes(StandardCharsets.UTF_8));

    private static String unique(String selector) {
        return PartSelector.unique(PAGE, PAGE.document().selectFirst(selector));
    }

    @Test
    void theShortestThatFindsOneIsTaken() {
        assertThat(unique("header")).isEqualTo("#top");
        assertThat(unique("a.here")).isEqualTo(".here");
        assertThat(unique("a:nth-of-type(2)")).isEqualTo("a:nth-of-type(2)");
        assertThat(unique("footer p")).isEqualTo("footer p");
        assertThat(unique("p.big")).isEqualTo(".big");
        assertThat(unique("ul")).isEqualTo("ul");
        assertThat(unique("b[id='a:b']")).isEqualTo("#a\\:b");
        assertThat(unique("html")).isEqualTo("html");
    }

    /** Whatever it is, it finds the element and no other. */
    @Test
    void everyElementHasASelectorOfItsOwn() {
        SelectorMatcher matcher = new SelectorMatcher(PAGE.document(), States.NONE);
        List<Element> all = PAGE.elements().subList(1, PAGE.elements().size());
        for (Element e : all) {
            SelectorList selector =
                    SelectorList.parse(PartSelector.unique(PAGE, e)).orElseThrow();
            assertThat(all.stream().filter(o -> matcher.matches(selector, o)).toList())
                    .as(selector.toString())
                    .containsExactly(e);
        }
    }

    @Test
    void namesAreWhatOneCallsIt() {
        assertThat(PartSelector.name(PAGE.document().selectFirst("header"))).isEqualTo("header#top");
        assertThat(PartSelector.name(PAGE.document().selectFirst("p.big"))).isEqualTo("p.big.2x");
        assertThat(PartSelector.name(PAGE.document().selectFirst("ul"))).isEqualTo("ul");
    }
}
