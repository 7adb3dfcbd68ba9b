package org.calmpalette.core.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Start tags as the HTML standard reads them, and what is left of them after an edit. */
class StartTagTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "<p>|<p x=\"1\">",
                "<br/>|<br x=\"1\"/>",
                "<img src=a />|<img src=a x=\"1\" />",
                "<img src=a/>|<img src=a/ x=\"1\">",
                "<p X = '2' y>|<p x=\"1\" y>",
                "<p x>|<p x=\"1\">",
                "<p x=>|<p x=\"1\">",
                "<p¶id=a¶>|<p¶id=a x=\"1\"¶>",
                "<p a=\"x\" title='x=\"2\"'>|<p a=\"x\" title='x=\"2\"' x=\"1\">",
            })
    void anAttributeIsWrittenWhereItIsOrBehindTheLast(String before, String after) {
        assertThat(new StartTag(before.replace("¶", "\n\t")).with("x", "1").text())
                .isEqualTo(after.replace("¶", "\n\t"));
    }

    @Test
    void anAttributeGoesWithTheWhiteSpaceBeforeItAndNothingElse() {
        assertThat(new StartTag("<p id=a  class='b c' hidden>").without("class").text())
                .isEqualTo("<p id=a hidden>");
        assertThat(new StartTag("<p id=words/>").without("id").text())
                .as("the slash belongs to the value")
                .isEqualTo("<p>");
        assertThat(new StartTag("<p a=\"1\"b=\"2\">").without("b").text()).isEqualTo("<p a=\"1\">");
        assertThat(new StartTag("<p a>").without("b").text()).isEqualTo("<p a>");
        assertThat(new StartTag("<h2 class=a>").named("h4").text()).isEqualTo("<h4 class=a>");
    }

    /** jsoup, the outside reference here, keeps the first of two attributes with one name, as the standard has it. */
    @Property(tries = 500, seed = "20261126")
    void attributesAreThoseThatAParserReads(@ForAll("tags") String tag) {
        Element parsed = Parser.htmlParser().parseInput(tag, "").body().child(0);
        Map<String, String> theirs = new LinkedHashMap<>();
        for (Attribute a : parsed.attributes()) {
            theirs.put(a.getKey(), a.getValue());
        }
        Map<String, String> ours = new LinkedHashMap<>();
        new StartTag(tag)
                .attributes()
                .forEach(a -> ours.putIfAbsent(
                        a.name(), a.valueStart() < 0 ? "" : tag.substring(a.valueStart(), a.valueEnd())));
        assertThat(ours).isEqualTo(theirs);
    }

    @Property(tries = 500, seed = "20261126")
    void whatWasWrittenIsReadAgainAndAllElseStays(@ForAll("tags") String tag) {
        Element before = Parser.htmlParser().parseInput(tag, "").body().child(0);
        Element after = Parser.htmlParser()
                .parseInput(new StartTag(tag).with("data-setting-text", "words").text(), "")
                .body()
                .child(0);
        assertThat(after.attr("data-setting-text")).isEqualTo("words");
        for (Attribute a : before.attributes()) {
            assertThat(after.attr(a.getKey()))
                    .isEqualTo(a.getKey().equals("data-setting-text") ? "words" : a.getValue());
        }
    }

    @Provide
    Arbitrary<String> tags() {
        Arbitrary<String> blank = Arbitraries.of(" ", "\n", "\t ", "  ");
        Arbitrary<String> name =
                Arbitraries.of("id", "class", "data-a", "hidden", "Title", "x:y", "@on", "data-setting-text");
        Arbitrary<String> is = Arbitraries.of("=", " = ", "= ", " =");
        Arbitrary<String> value = Arbitraries.of("\"a b\"", "'c\"d'", "e", "f/", "\"\"", "'>'", "\"x=1\"", "g'h");
        Arbitrary<String> attribute = net.jqwik.api.Combinators.combine(
                        blank, name, is, value, Arbitraries.of(true, false))
                .as((b, n, e, v, has) -> b + n + (has ? e + v : ""));
        return net.jqwik.api.Combinators.combine(attribute.list().ofMaxSize(5), Arbitraries.of("", " ", "/", " /"))
                .as((List<String> all, String end) -> "<p" + String.join("", all) + end + ">");
    }
}
