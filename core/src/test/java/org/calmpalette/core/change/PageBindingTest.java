package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;

/** Parts of pages that settings fill: only the attribute is written, and it comes out again without a trace. */
class PageBindingTest {
    private static final Place PAGE = new Place("page", "Page");
    private static final String INDEX =
            """
      <!doctype html>
      <body>
        <h1 class='t'>Boats</h1>
        <p class="lead">Over the mere <b>daily</b></p>
        <a class=nav href="piers.html#withy">Piers</a>
        <img src="img/a.svg" alt="A pier"><video src="film/a.mp4" poster="img/p.jpg"></video>
        <picture><source srcset="img/b.webp"><img id=inner src="img/a.svg"></picture>
        <p class="foot">Ask us</p>
      </body>
      """;
    private static final String PIERS =
            "<!doctype html><body><p class=\"foot\">Ask us</p><p class=foot>Something else</p><p class='foot'>Ask us</p>";

    private static Theme theme() {
        return Themes.of(
                "index.html",
                INDEX,
                "piers.html",
                PIERS,
                "img/a.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='4'/>",
                "img/p.jpg",
                "x",
                "film/a.mp4",
                "x");
    }

    private static Element at(Theme theme, String selector) {
        return theme.pages().get(0).document().selectFirst(selector);
    }

    private static PageBinding.Offer offer(Theme theme, String selector, Binding binding) {
        return PageBinding.offers(theme.pages().get(0), at(theme, selector)).stream()
                .filter(o -> o.binding() == binding)
                .findFirst()
                .orElseThrow();
    }

    private static Change bind(Theme theme, String selector, Binding binding, String key, boolean everywhere) {
        PageBinding.Offer offer = offer(theme, selector, binding);
        return PageBinding.bind(
                theme,
                theme.pages().get(0),
                at(theme, selector),
                binding,
                Setting.of(key, "It", "", "page", offer.kind(), offer.value()),
                PAGE,
                everywhere);
    }

    private static String text(Theme theme, String page) {
        return Themes.text(theme.files(), page);
    }

    private static List<String> offered(Theme theme, String selector) {
        return PageBinding.offers(theme.pages().get(0), at(theme, selector)).stream()
                .map(o -> o.binding() + " " + o.kind().name())
                .toList();
    }

    @Test
    void eachElementOffersWhatASettingCouldFill() {
        Theme theme = theme();
        assertThat(offered(theme, "h1")).containsExactly("TEXT line", "LEVEL level", "SHOW yes-no");
        assertThat(offered(theme, ".lead"))
                .as("a text with markup inside is not one text")
                .containsExactly("SHOW yes-no");
        assertThat(offered(theme, "a")).containsExactly("TEXT line", "HREF link", "SHOW yes-no");
        assertThat(offered(theme, "img")).containsExactly("SRC picture", "ALT line", "SHOW yes-no");
        assertThat(offered(theme, "video")).containsExactly("SRC video", "SHOW yes-no");
        assertThat(offered(theme, "body")).isEmpty();
        assertThat(offer(theme, "h1", Binding.LEVEL).value()).isEqualTo(Value.of(1));
        assertThat(offer(theme, "a", Binding.HREF).value()).isEqualTo(Value.of("piers.html#withy"));
        assertThat(offer(theme, "video", Binding.SRC).value())
                .isEqualTo(Value.parts("src", "film/a.mp4", "poster", "img/p.jpg"));
    }

    @Test
    void bindingWritesOneAttributeAndLettingGoTakesItOut() {
        Theme theme = theme();
        Theme bound = bind(theme, "h1", Binding.TEXT, "title", false).applied(theme);
        assertThat(text(bound, "index.html"))
                .isEqualTo(INDEX.replace("<h1 class", "<h1 data-setting-text=\"title\" class"));
        assertThat(offer(bound, "h1", Binding.TEXT).bound()).isEqualTo("title");
        assertThat(PageBinding.uses(bound, "title")).singleElement().satisfies(u -> assertThat(u.line())
                .isEqualTo(3));
        Theme released = PageBinding.release(bound, bound.pages().get(0), at(bound, "h1"), Binding.TEXT)
                .applied(bound);
        assertThat(text(released, "index.html")).isEqualTo(INDEX);
        assertThat(released.palette().setting("title"))
                .as("the setting itself stays")
                .isPresent();
        assertThatThrownBy(() -> bind(bound, "h1", Binding.TEXT, "other", false))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("bound to “title” already");
    }

    @Test
    void likePartsOfAllPagesAreBoundTogether() {
        Theme theme = theme();
        Change change = bind(theme, ".foot", Binding.TEXT, "foot", true);
        assertThat(change.note()).endsWith("3 parts of 2 pages");
        Theme bound = change.applied(theme);
        assertThat(text(bound, "piers.html"))
                .isEqualTo(PIERS.replace("<p class=\"foot\">Ask", "<p data-setting-text=\"foot\" class=\"foot\">Ask")
                        .replace("<p class='foot'>Ask", "<p data-setting-text=\"foot\" class='foot'>Ask"));
        assertThat(new String(ThemeBuild.build(bound, Map.of("foot", Chosen.of("Write to us")))
                                .files()
                                .get("piers.html"))
                        .split("Write to us", -1))
                .hasSize(3);
    }

    @Test
    void aRenamedSettingIsRenamedWhereItIsUsedAndARemovedOneLeavesNothing() {
        Theme theme = bind(theme(), ".foot", Binding.TEXT, "foot", true).applied(theme());
        Theme renamed = PaletteChange.rename(theme, "foot", "closing").applied(theme);
        assertThat(text(renamed, "piers.html"))
                .contains("data-setting-text=\"closing\"")
                .doesNotContain("=\"foot\" class=\"foot\"");
        assertThat(renamed.palette().known("closing").former()).containsExactly("foot");
        Theme removed = PaletteChange.remove(renamed, List.of("closing")).applied(renamed);
        assertThat(text(removed, "piers.html")).isEqualTo(PIERS);
        assertThat(text(removed, "index.html")).isEqualTo(INDEX);
        // A page that says something else than the default would lose it.
        Theme other = PaletteChange.edit(
                        theme,
                        theme.palette()
                                .known("foot")
                                .withGiven(new org.calmpalette.core.setting.Given.Fixed(Value.of("Call us"))),
                        PAGE)
                .applied(theme);
        assertThatThrownBy(() -> PaletteChange.remove(other, List.of("foot")))
                .hasMessageContaining("says something else than the setting's default");
    }

    @Test
    void whatDoesNotGoTogetherIsRefusedInWords() {
        Theme theme = theme();
        Page page = theme.pages().get(0);
        Setting text = Setting.of("t", "Text", "", "page", TextKind.LINE, Value.of("x"));
        assertThatThrownBy(() -> PageBinding.bind(theme, page, at(theme, "h1"), Binding.LEVEL, text, PAGE, false))
                .hasMessageContaining("cannot fill");
        Setting picture = Setting.of("p", "Picture", "", "page", PictureKind.ANY, Value.of("img/a.svg"));
        assertThatThrownBy(() -> PageBinding.bind(theme, page, at(theme, "video"), Binding.SRC, picture, PAGE, false))
                .hasMessageContaining("picture cannot stand in a video");
        Setting video = Setting.of(
                "v", "Video", "", "page", VideoKind.ANY, Value.parts("src", "film/a.mp4", "poster", "img/p.jpg"));
        assertThatThrownBy(() -> PageBinding.bind(theme, page, at(theme, "img"), Binding.SRC, video, PAGE, false))
                .hasMessageContaining("video cannot stand in an img");
        assertThatThrownBy(() -> PageBinding.bind(theme, page, at(theme, "#inner"), Binding.SRC, picture, PAGE, false))
                .hasMessageContaining("source elements around this picture")
                .hasMessageContaining("line 7");
    }
}
