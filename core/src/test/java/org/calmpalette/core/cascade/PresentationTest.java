package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Attributes that say how something looks: HTML Standard, section 15.3, and its rules for legacy colours, section 2.3.6. */
class PresentationTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<body text=red> | body | color | rgb(255, 0, 0)",
                "<body bgcolor=#123> | body | background-color | rgb(17, 34, 51)",
                "<body bgcolor=#123456> | body | background-color | rgb(18, 52, 86)",
                "<body text=transparent> | body | color | rgb(0, 0, 0)",
                "<body text=''> | body | color | rgb(0, 0, 0)",
                // What is no colour becomes one: "chucknorris" is the well-known example of these rules.
                "<body bgcolor=chucknorris> | body | background-color | rgb(192, 0, 0)",
                "<body bgcolor=6db6ec49efd278cd0bc92d1e5e072d68> | body | background-color | rgb(110, 205, 224)",
                "<body bgcolor=1> | body | background-color | rgb(1, 0, 0)",
                "<body bgcolor=#0a0b> | body | background-color | rgb(10, 11, 0)",
                "<body marginwidth=7> | body | margin-left | 7px",
                "<body leftmargin=7> | body | margin-left | 7px",
                "<body rightmargin=7> | body | margin-right | 7px",
                "<body marginheight=7> | body | margin-bottom | 7px",
                "<body topmargin=7> | body | margin-top | 7px",
                "<body bottommargin=7> | body | margin-bottom | 7px",
                "<body leftmargin=x> | body | margin-left | 8px",
                "<font color=blue>x | font | color | rgb(0, 0, 255)",
                "<font size=7>x | font | font-size | 48px",
                "<font size=+1>x | font | font-size | 18px",
                "<font size=-5>x | font | font-size | 10px",
                "<font size=99>x | font | font-size | 48px",
                "<font size=big>x | font | font-size | 16px",
                "<hr color=red> | hr | color | rgb(255, 0, 0)",
                "<img hspace=3> | img | margin-right | 3px",
                "<img vspace=10%> | img | margin-top | 10%",
                "<input hspace=3> | input | margin-left | 0px",
                "<input type=image hspace=3> | input | margin-left | 3px",
                "<iframe hspace=3></iframe> | iframe | margin-left | 3px",
                "<table bordercolor=red> | table | border-left-color | rgb(255, 0, 0)",
                "<table align=center> | table | margin-left | auto",
                "<table cellpadding=4><td>x | td | padding-bottom | 4px",
                "<table bgcolor=red><td bgcolor=blue>x | td | background-color | rgb(0, 0, 255)",
                "<table><tr bgcolor=lime><td>x | tr | background-color | rgb(0, 255, 0)",
                "<table background=a.png> | table | background-image | url(\"a.png\")",
                "<p bgcolor=red>x | p | background-color | rgba(0, 0, 0, 0)",
                "<p dir=rtl>x | p | direction | rtl",
                "<p dir=LTR>x | p | direction | ltr",
                "<p dir=auto>x | p | direction | ltr"
            })
    void attributesPaint(String html, String element, String property, String value) {
        Page page = Page.read("index.html", ("<!doctype html>" + html).getBytes(StandardCharsets.UTF_8));
        assertThat(PageStyles.sheets(page, f -> Optional.empty())
                        .in(Viewport.of(900, 700), States.NONE)
                        .of(page.document().selectFirst(element))
                        .computed(property))
                .isEqualTo(value);
    }
}
