package org.calmpalette.core.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.css.Edit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Attributes are put in, taken out and changed without touching a character beside them. */
class TagTest {
    private static Page page(String html) {
        return Page.read("index.html", html.getBytes(StandardCharsets.UTF_8));
    }

    private static Tag tag(Page page) {
        return new Tag(page, page.document().selectFirst("b, img, svg"));
    }

    private static String after(Page page, Edit edit) {
        return new String(page.source().withEdits(List.of(edit)), StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<b a=1 x=2 c>y</b> | <b a=1 c>y</b>",
                "<b x='2'>y</b> | <b>y</b>",
                "<b x = \"2\" c>y</b> | <b c>y</b>",
                "<b x>y</b> | <b>y</b>",
                "<img x=''/> | <img/>"
            })
    void anAttributeGoesWithTheSpaceBeforeIt(String before, String expected) {
        Page page = page("<p>" + before + "</p>");
        assertThat(after(page, tag(page).without("x"))).isEqualTo("<p>" + expected + "</p>");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<b>y</b> | <b data-a=\"k\">y</b>",
                "<B  c=1>y</B> | <B data-a=\"k\"  c=1>y</B>",
                "<img/> | <img data-a=\"k\"/>"
            })
    void anAttributeComesRightBehindTheName(String before, String expected) {
        Page page = page("<p>" + before);
        assertThat(after(page, tag(page).with("data-a", "k"))).isEqualTo("<p>" + expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<b class=\"one two\">y</b> | <b class=\"one two three\">y</b>",
                "<b class='one'>y</b> | <b class='one three'>y</b>",
                "<b>y</b> | <b class=\"three\">y</b>"
            })
    void aClassComesBehindTheOthers(String before, String expected) {
        Page page = page(before);
        assertThat(after(page, tag(page).withClass("three"))).isEqualTo(expected);
    }

    @Test
    void linesBetweenAttributesGoWithThem() {
        Page page = page("<B\n  x=2\r\n  c>y</B>");
        assertThat(after(page, tag(page).without("x"))).isEqualTo("<B\r\n  c>y</B>");
    }

    @Test
    void aValueIsReplacedInItsQuotationMarks() {
        Page page = page("<b x='old' y=old>z</b>");
        assertThat(after(page, tag(page).replaced("x", "new"))).isEqualTo("<b x='new' y=old>z</b>");
        assertThat(after(page, tag(page).replaced("y", "new"))).isEqualTo("<b x='old' y=new>z</b>");
    }

    @Test
    void whatTheParserMadeIsNotWritten() {
        Page page = page("<table><tr><td>x</table>");
        assertThat(new Tag(page, page.document().selectFirst("td")).isWritten()).isTrue();
        assertThat(new Tag(page, page.document().selectFirst("tbody")).isWritten())
                .isFalse();
        assertThat(new Tag(page, page.document().body()).isWritten()).isFalse();
    }
}
