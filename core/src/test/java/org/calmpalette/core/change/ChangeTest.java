package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class ChangeTest {
    private static final String CSS = "a{color:red}\r\nb{color:blue}\r\nc{color:green}\r\n";
    private final Theme theme = Themes.of("a.css", CSS, "index.html", "<p>x", "img/a.png", "0123456789");

    private static Edit at(String what, String to) {
        int start = CSS.indexOf(what);
        return new Edit(start, start + what.length(), to);
    }

    private Change setting() {
        return Change.of("S")
                .withPalette(
                        theme,
                        theme.palette()
                                .with(
                                        Setting.of("k", "K", "", "page", ColorKind.ANY, Value.of("#000000")),
                                        new Place("page", "Page")));
    }

    @Test
    void onlyTheCharactersOfTheEditsChange() {
        Change change = Change.edit("N", "a.css", at("blue", "navy"), at("red", "tomato"))
                .withFile("new.txt", new byte[] {1});
        assertThat(change.files(theme)).containsOnlyKeys("a.css", "new.txt");
        assertThat(Themes.text(change.applied(theme).files(), "a.css"))
                .isEqualTo(CSS.replace("blue", "navy").replace("red", "tomato"));
        assertThat(setting().files(theme)).containsOnlyKeys("palette.json");
        assertThatThrownBy(() -> Change.of("N").files(theme))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("would change nothing");
        assertThatThrownBy(
                        () -> Change.edit("N", "gone.css", new Edit(0, 0, "x")).files(theme))
                .hasMessageContaining("no file gone.css");
    }

    @Test
    void ofChangesThatMeetTheFirstIsTaken() {
        Change red = Change.edit("1", "a.css", at("red", "tomato"));
        Change alsoRed = Change.edit("2", "a.css", at("red", "pink"));
        Change around = Change.edit("3", "a.css", at("color:red", "opacity:0"));
        Change blue = Change.edit("4", "a.css", at("blue", "navy"));
        Change whole = Change.of("5").withFile("a.css", "x".getBytes(StandardCharsets.UTF_8));
        Change all = Change.all("All", List.of(red, alsoRed, around, blue, whole, red, setting(), setting()));
        assertThat(all.note()).isEqualTo("All");
        assertThat(all.edits().get("a.css")).extracting(Edit::replacement).containsExactly("tomato", "navy");
        assertThat(all.written()).isEmpty();
        assertThat(all.palette()).isPresent();
        assertThat(Change.all("All", List.of(whole, red, blue)).edits())
                .as("what is written whole is not edited too")
                .isEmpty();
        assertThat(Change.all("All", List.of()).isEmpty()).isTrue();
    }

    @Test
    void theExactLinesAreTold() {
        List<Difference> told = Difference.of(
                theme,
                Change.edit("N", "a.css", at("green", "lime"), at("red", "tomato"), at("b{", "b{ "))
                        .withFile("img/a.png", new byte[] {1, 2})
                        .withFile("own.css", "p{}\nq{}\n".getBytes(StandardCharsets.UTF_8))
                        .withFile("img/big.jpg", new byte[12_345]));
        assertThat(told).extracting(Difference::file).containsExactly("a.css", "img/a.png", "img/big.jpg", "own.css");
        assertThat(told.get(0).hunks()).extracting(Difference.Hunk::line).containsExactly(1, 2, 3);
        assertThat(told.get(0).hunks().get(0).before()).containsExactly("a{color:red}");
        assertThat(told.get(0).hunks().get(0).after()).containsExactly("a{color:tomato}");
        assertThat(told.get(1).remark()).isEqualTo("10 bytes become 2 bytes");
        assertThat(told.get(2).remark()).isEqualTo("is new, 12 kB");
        assertThat(told.get(3).hunks().get(0).after()).containsExactly("p{}", "q{}");
        assertThat(Difference.of(theme, setting())).singleElement().satisfies(d -> assertThat(d.remark())
                .isEqualTo("is made, with the setting"));
        Theme with = setting().applied(theme);
        assertThat(Difference.of(
                        with, Change.of("R").withPalette(with, with.palette().without("k"))))
                .singleElement()
                .satisfies(d -> assertThat(d.remark()).isEqualTo("changes"));
    }

    @Test
    void linesThatStayAreNoPartOfADifference() {
        int from = CSS.indexOf("red");
        int to = CSS.indexOf("green");
        List<Difference> told = Difference.of(
                theme, Change.edit("N", "a.css", new Edit(from, to, "red}\r\nb{color:navy}\r\nc{color:")));
        assertThat(told.get(0).hunks()).singleElement().satisfies(h -> {
            assertThat(h.line()).isEqualTo(2);
            assertThat(h.before()).containsExactly("b{color:blue}");
            assertThat(h.after()).containsExactly("b{color:navy}");
        });
    }
}
