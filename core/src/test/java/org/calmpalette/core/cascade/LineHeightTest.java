package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Optional;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The units of line height: CSS Values and Units 4, section 6.1.1; what a line height is and how it is inherited: CSS 2.2, section 10.8.1. */
class LineHeightTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "p{line-height:1.5;padding-top:2lh} | padding-top | 48px",
                "p{line-height:150%;font-size:20px;padding-top:1lh} | padding-top | 30px",
                "div{line-height:2} p{font-size:10px;padding-top:1lh} | padding-top | 20px",
                "div{line-height:200%} p{font-size:10px;padding-top:1lh} | padding-top | 32px",
                "div{line-height:24px} p{font-size:2lh} | font-size | 48px",
                "div{line-height:24px} p{line-height:2lh;padding-top:1lh} | padding-top | 48px",
                "html{line-height:20px} p{padding-top:1rlh} | padding-top | 20px",
                "html{line-height:20px} div{line-height:2rlh} p{padding-top:1lh} | padding-top | 40px",
                "html{line-height:20px} div{line-height:1} p{padding-top:1rlh} | padding-top | 20px",
                // Of a normal line height a font's metrics decide, so nobody says it is one em.
                "p{padding-top:1lh} | padding-top | 1lh",
                "p{line-height:calc(1 + .5);padding-top:1lh} | padding-top | 24px"
            })
    void unitsOfLineHeightAreThoseOfTheElementOrOfItsParent(String css, String property, String value) {
        Page page = Page.read(
                "a.html",
                ("<!doctype html><html><head><style>" + css + "</style></head><body><div><p>x</p></div></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, p -> Optional.empty()).in(Viewport.of(1000, 800), States.NONE);
        assertThat(styles.of(page.document().selectFirst("p")).computed(property))
                .isEqualTo(value);
    }

    /** A calculation that asks twice for the line height of the parent, which asks twice for that of its own, and so on. */
    @Test
    void deepCalculationsOfLineHeightsAreWorkedOutOnce() {
        int deep = 60;
        Page page = Page.read(
                "a.html",
                ("<!doctype html><html><head><style>html{line-height:1px} div{line-height:calc(1lh + 1lh)} p{line-height:1lh;padding-top:1lh}</style></head><body>"
                                + "<div>".repeat(deep) + "<p>x</p>" + "</div>".repeat(deep) + "</body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, p -> Optional.empty()).in(Viewport.of(1000, 800), States.NONE);
        double px = Budget.within(
                Duration.ofSeconds(20),
                () -> styles.of(page.document().selectFirst("p")).lineHeight());
        assertThat(px).isEqualTo(Math.pow(2, deep));
    }
}
