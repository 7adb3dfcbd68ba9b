package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A picture of 1000 by 200 px behind a page with a column of 600 px in the middle, from 0 to 100 px down. */
class LostSubjectTest {
    private static final String COLUMN = "[320,0,0,320,100],[600,0,0,600,100],[2560,980,0,600,100]";

    private record Seen(Backgrounds backgrounds, PaintedPicture picture, Sweep sweep, Subject subject) {
        Optional<LostSubject> lost() {
            return LostSubject.of(backgrounds, picture, subject, sweep);
        }
    }

    private static Seen seen(String position, double left, double top) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(1000, 200, BufferedImage.TYPE_INT_RGB), "png", png);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><main></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                ("body{background:url(p.png) " + position + " no-repeat}main{background:#fff}")
                        .getBytes(StandardCharsets.UTF_8));
        files.put("p.png", png.toByteArray());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Measures measures = Measures.read(
                "m",
                ("{\"format\":\"calm-measures/1\",\"page\":\"index.html\",\"windowHeight\":800,\"from\":320,\"to\":2560,\"unsure\":[],\"height\":[[320,900]],"
                                + "\"boxes\":{\"1\":[[320,0,0,320,100],[2560,0,0,2560,100]],\"4\":[[320,0,0,320,100],[2560,0,0,2560,100]],\"5\":["
                                + COLUMN + "]},\"lines\":{}}")
                        .getBytes(StandardCharsets.UTF_8));
        Rendered rendered = new Rendered(theme);
        Backgrounds backgrounds =
                new Backgrounds(new Scenes(rendered, theme.pages().get(0), measures), new Gallery(theme));
        PaintedPicture picture =
                PaintedPicture.of(rendered, theme.pages().get(0)).get(0);
        Subject subject = new Subject(
                "p.png", "the boat", BigDecimal.valueOf(left), BigDecimal.valueOf(top), BigDecimal.TEN, BigDecimal.TEN);
        return new Seen(
                backgrounds,
                picture,
                backgrounds.sweep(picture, Backgrounds.part(Optional.of(subject)), UnaryOperator.identity()),
                subject);
    }

    @Test
    void belowTheColumnItIsOnlyEverOutside() throws IOException {
        LostSubject lost = seen("left top", 70, 60).lost().orElseThrow();
        // It lies from 700 to 800 px across and from 120 to 140 down: outside up to a width of 700.
        assertThat(lost.upwards()).isFalse();
        assertThat(lost.how()).isEqualTo(Sight.State.OFF);
        assertThat(lost.lost()).as("320 to 700").isEqualTo(381);
        assertThat(lost.words()).isEqualTo("At 320 px the boat is out of sight");
        assertThat(lost.better()).map(Anchor::lost).contains(0L);
    }

    /** Outside up to a window of 700 px, which is a phone; moved to the right edge it is seen everywhere. */
    @Test
    void ownersAreToldTheBandsInWhichItIsLost() throws IOException {
        Seen seen = seen("left top", 70, 60);
        LostInBands lost = LostInBands.of(seen.backgrounds, List.of(seen.picture), seen.subject, Bands.USUAL)
                .orElseThrow();
        assertThat(lost.bands())
                .as("up to 700 of 767 px")
                .containsExactly(Map.entry(Bands.USUAL.list().get(0), false));
        assertThat(lost.lost()).isEqualTo(381);
        assertThat(lost.better()).map(Anchor::lost).contains(0L);
        Bands halves = new Bands(List.of(new Band("small", "Small", 699), new Band("large", "Large", null)));
        assertThat(LostInBands.of(seen.backgrounds, List.of(seen.picture), seen.subject, halves)
                        .orElseThrow()
                        .bands())
                .as("one width of the wider band is enough")
                .containsExactly(
                        Map.entry(halves.list().get(0), true),
                        Map.entry(halves.list().get(1), false));
        Seen moved = seen(lost.better().orElseThrow().value(), 70, 60);
        assertThat(LostInBands.of(moved.backgrounds, List.of(moved.picture), moved.subject, Bands.USUAL))
                .isEmpty();
    }

    @Test
    void besideTheColumnItIsCoveredFromAWidthToAnother() throws IOException {
        LostSubject lost = seen("left top", 60, 10).lost().orElseThrow();
        // From 600 to 700 px across: outside up to a window of 600 px. The column lies from (w - 600) / 2 to (w + 600)
        // / 2, so it covers more
        // than half a hundredth of the boat from 602 to 1998.
        assertThat(lost.upwards()).as("from 1999 px on it is free").isFalse();
        assertThat(lost.from()).isEqualTo(320);
        assertThat(lost.lost()).isEqualTo(600 - 320 + 1 + 1998 - 602 + 1);
    }

    @Test
    void whatIsSeenEverywhereIsNotLost() throws IOException {
        assertThat(seen("left top", 0, 60).lost()).isEmpty();
        assertThat(seen("center top", 45, 60).lost()).isEmpty();
        assertThat(seen("center bottom", 45, 60).lost())
                .as("the root is 100 px high, so the picture starts 100 px above it and the column covers the boat")
                .isPresent();
    }

    @Test
    void theBestAnchorIsTheOneThatLosesItLeast() throws IOException {
        Seen seen = seen("right top", 0, 60);
        Anchor best = Anchor.best(seen.backgrounds(), seen.picture(), Backgrounds.part(Optional.of(seen.subject())))
                .orElseThrow();
        assertThat(best.value()).startsWith("left");
        assertThat(best.lost()).isZero();
        assertThat(best.whole()).isEqualTo(2241);
        List<Anchor> all = Anchor.ALL.stream()
                .map(v -> {
                    Sweep sweep = seen.backgrounds()
                            .sweep(
                                    seen.picture(),
                                    Backgrounds.part(Optional.of(seen.subject())),
                                    l -> Anchor.moved(l, v));
                    return new Anchor(
                            v, sweep.count(Sight.State.UNDER, Sight.State.OFF), sweep.count(Sight.State.WHOLE));
                })
                .toList();
        assertThat(all).allSatisfy(a -> assertThat(a.lost()).isGreaterThanOrEqualTo(best.lost()));
    }

    @ParameterizedTest
    @CsvSource({"-1, 0, 10, 10", "0, 0, 0, 10", "95, 0, 10, 10", "0, 99, 10, 2", "0, -0.01, 10, 10"})
    void aSubjectLiesInsideOfItsPicture(String left, String top, String width, String height) {
        assertThatThrownBy(() -> new Subject(
                        "p.png",
                        "",
                        new BigDecimal(left),
                        new BigDecimal(top),
                        new BigDecimal(width),
                        new BigDecimal(height)))
                .isInstanceOf(BadInputException.class)
                .hasMessage("The subject of p.png does not lie inside of the picture.");
    }

    @Test
    void aNameHasAnEnd() {
        assertThatThrownBy(() -> new Subject(
                        "p.png", "x".repeat(81), BigDecimal.ONE, BigDecimal.ONE, BigDecimal.ONE, BigDecimal.ONE))
                .hasMessage("The name of the subject is too long.");
        assertThat(new Subject(
                                "p.png",
                                " ",
                                BigDecimal.ZERO,
                                BigDecimal.ZERO,
                                BigDecimal.valueOf(100),
                                BigDecimal.valueOf(100))
                        .words())
                .isEqualTo("the subject");
    }
}
