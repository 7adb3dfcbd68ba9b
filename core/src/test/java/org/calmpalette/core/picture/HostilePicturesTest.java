package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.PictureChange;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Each picture of the corpus goes through all that is done with pictures: it works, or the answer is a clear one, within bounds. */
class HostilePicturesTest {
    /** What one step may take from the heap in all, most of it given back at once; the whole application has 512 MB. */
    private static final long MOST_BYTES = 250_000_000;

    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();

    static Stream<String> names() {
        return HostilePictures.all().keySet().stream();
    }

    @ParameterizedTest
    @MethodSource("names")
    void itWorksOrTheAnswerIsAClearOne(String name) {
        byte[] bytes = HostilePictures.all().get(name).get();
        String path = "img/" + name.replace(",", "");
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(path, bytes);
        files.put("a.css", ("a{background:url(img/other." + path.replaceAll(".*\\.", "") + ")}").getBytes());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Map<String, Runnable> steps = new LinkedHashMap<>();
        steps.put("size", () -> PictureSize.read(bytes));
        steps.put("orientation", () -> Orientation.of(bytes));
        steps.put("pixels", () -> Pixels.read(bytes));
        steps.put("colours", () -> Pixels.read(bytes).map(p -> LeadingColors.of(p, 5)));
        steps.put("lighter", () -> Lighter.of(path, bytes, 200, 80));
        steps.put("webp", () -> Lighter.asWebp(path, bytes, 200, 80));
        steps.put(
                "recoloured",
                () -> Lighter.edited(
                        path, bytes, new PictureEdit.Recolored(new Tint(Tint.Way.HUE, Color.WHITE, Color.WHITE, 90))));
        steps.put("cut", () -> Lighter.edited(path, bytes, new PictureEdit.Fitted(4, 4, 0.5, 0.5)));
        steps.put("facts", () -> theme.media().facts(path));
        steps.put("added", () -> PictureChange.added(theme, "new-" + name.replace(",", ""), bytes)
                .files(theme));
        steps.put("replaced", () -> PictureChange.replaced(theme, path, name, bytes)
                .files(theme));
        steps.put("brought", () -> PictureChange.brought(
                        theme, "img/other." + path.replaceAll(".*\\.", ""), name.replace(",", ""), bytes)
                .files(theme));
        steps.forEach((step, run) -> {
            long before = THREADS.getCurrentThreadAllocatedBytes();
            try {
                run.run();
            } catch (BadInputException clear) {
                assertThat(clear.getMessage()).as(step).isNotBlank().hasSizeLessThan(400);
                assertThat(clear.mend()).as(step).isNotBlank();
            }
            assertThat(THREADS.getCurrentThreadAllocatedBytes() - before)
                    .as(name + ", " + step)
                    .isLessThan(MOST_BYTES);
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "script.svg | line 2: it holds a <script>",
                "handler.svg | line 1: <path> runs a script, in onload",
                "page-inside.svg | it holds a <foreignobject>",
                "elsewhere.svg | <image> loads “https://pics.example/a.png”",
                "elsewhere-in-style.svg | its style loads something",
                "elsewhere-in-fill.svg | <path> loads something, in fill",
                "set-to-a-script.svg | <set> changes an address",
                "svg-in-svg.svg | <image> loads “data:image/svg+xml",
                "a-billion-laughs.svg | line 1: it declares an entity",
                "30-MB.svg | more than 2 MB"
            })
    void aDrawingThatRunsOrLoadsIsRefusedWithTheLine(String name, String words) {
        assertThatThrownBy(() ->
                        SvgSafety.check(name, HostilePictures.all().get(name).get()))
                .hasMessageStartingWith(name)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource({
        "<path fill='url(#g)' clip-path='url( \"#c\" )'/>",
        "<style>.a{fill:url(#g)}</style><use href='#a'/>",
        "<a href='https://a.example/'><path/></a>",
        "<image href='data:image/png;base64,AAAA'/>",
        "<animate attributeName='fill' values='red;blue'/>"
    })
    void whatStaysInsideIsTaken(String inside) {
        SvgSafety.check("a.svg", ("<svg xmlns='http://www.w3.org/2000/svg'>" + inside + "</svg>").getBytes());
    }
}
