package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Painted;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What an owner may safely choose: drawn from what stands around the value, and the value itself is always among it. */
class ProposalTest {
    private static final Theme THEME = Themes.of(
            "a.css",
            """
      body { background: #ffffff; color: #222222 }
      .card { background: #eeeeee; color: #333333 }
      .warn { color: #996600 }
      .night { background: #101820 } .night p { color: #fafafa }
      """,
            "index.html",
            "<!doctype html><link rel=stylesheet href=a.css><p>x</p><div class=card>Words <b class=warn>more</b></div><div class=night><p>white</p></div>",
            "img/w.svg",
            "<svg xmlns='http://www.w3.org/2000/svg' width='400' height='100'/>");
    private static final Rendered RENDERED = new Rendered(THEME);

    private static Kind proposed(String kind, Value value, Painted... painted) {
        return Proposal.of(
                Kinds.read(kind, Value.parts()),
                value,
                RENDERED,
                ColorUsage.of(THEME).rows(),
                List.of(painted));
    }

    private static List<Painted> paints(String color) {
        return ColorUsage.of(THEME).rows().stream()
                .filter(r -> r.value().equals(color))
                .flatMap(r -> r.uses().stream())
                .flatMap(u -> u.paints().stream())
                .toList();
    }

    @ParameterizedTest
    @CsvSource({"16,8,32,1", "1.5,0.7,3,0.1", "0,0,40,1", "-10,-20,-5,1", "0.25,0.12,0.5,0.01"})
    void lengthsFromHalfToDoubleOnStepsThatTheValueLiesOn(
            BigDecimal now, BigDecimal least, BigDecimal most, BigDecimal step) {
        Kind kind = proposed("length", Value.parts("value", now, "unit", "px"));
        assertThat(kind.inWords()).as(kind.inWords()).contains(least.toPlainString(), most.toPlainString());
        assertThat(kind.refusal(Value.parts("value", now, "unit", "px"), Kind.Around.NOTHING))
                .isEmpty();
        assertThat(kind.refusal(Value.parts("value", most.add(step), "unit", "px"), Kind.Around.NOTHING))
                .isPresent();
        assertThat(kind.refusal(Value.parts("value", most, "unit", "rem"), Kind.Around.NOTHING))
                .as("another unit")
                .isPresent();
    }

    @Test
    void numbersTextsAndPictures() {
        assertThat(proposed("percentage", Value.of(40)).refusal(Value.of(101), Kind.Around.NOTHING))
                .isPresent();
        assertThat(proposed("number", Value.of(3)).refusal(Value.of(7), Kind.Around.NOTHING))
                .isPresent();
        Kind text = Proposal.of(TextKind.LINE, Value.of("Cross the mere by dusk"), RENDERED, List.of(), List.of());
        assertThat(text.refusal(Value.of("x".repeat(50)), Kind.Around.NOTHING))
                .as("about twice as long")
                .isEmpty();
        assertThat(text.refusal(Value.of("x".repeat(51)), Kind.Around.NOTHING)).isPresent();
        assertThat(text.refusal(Value.of(""), Kind.Around.NOTHING))
                .as("what says something today has to")
                .isPresent();
        Kind picture = proposed("picture", Value.of("img/w.svg"));
        assertThat(picture.inWords()).contains("400");
    }

    @Test
    void coloursKeepTheContrastTheyHaveToday() {
        Kind ink = Proposal.of(
                Kinds.read("color", Value.parts()),
                Value.of("#333333"),
                RENDERED,
                ColorUsage.of(THEME).rows(),
                paints("#333333"));
        assertThat(ink.inWords()).contains("4.5 to 1 with #eeeeee");
        assertThat(ink.refusal(Value.of("#bbbbbb"), Kind.Around.NOTHING)).isPresent();
        assertThat(ink.refusal(Value.of("#111111"), Kind.Around.NOTHING))
                .as("not one of the swatches")
                .isPresent();
        Kind ground = Proposal.of(
                Kinds.read("color", Value.parts()),
                Value.of("#101820"),
                RENDERED,
                ColorUsage.of(THEME).rows(),
                paints("#101820"));
        assertThat(ground.refusal(Value.of("#101820"), Kind.Around.NOTHING)).isEmpty();
        Kind loose = Proposal.of(
                Kinds.read("color", Value.parts()),
                Value.of("#996600"),
                RENDERED,
                ColorUsage.of(THEME).rows(),
                paints("#996600"));
        assertThat(loose.inWords())
                .as("less readable than it should be may not get worse")
                .contains("4.2 to 1 with #eeeeee");
    }
}
