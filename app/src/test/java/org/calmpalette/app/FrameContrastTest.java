package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;

/** The script of the frames and core's {@link Backdrop} see the same text on the same ground. */
class FrameContrastTest {
    private static final String HTML =
            """
      <!doctype html><style>body{margin:0;background:#f4efe6;color:#22303d} .half{opacity:.5} .glass{background:rgb(31 51 71 / 60%);color:#fff} .solid{background:#1f3347;color:#9ab}
      .pale{color:rgb(0 0 0 / 40%)} .ok{color:oklch(60% .15 30)} .picture{background:url(data:,x)} .blend{mix-blend-mode:multiply} .soft{filter:blur(1px)} .light{opacity:.25;background:#fff}</style>
      <p>1</p><div class=half><p>2</p><div class=solid><p>3</p></div></div><div class=glass><p>4</p><div class=glass><p class=pale>5</p></div></div><div class=solid><p>6</p><p class=half>7</p></div>
      <div class=picture><p>8</p><p class=solid>9</p><p class=glass>10</p><p class="solid half">11</p></div><div class=blend><p>12</p></div><div class=soft><p class=solid>13</p></div>
      <div class=light><div class=half><p class=ok>14</p></div></div><section class=glass><div class=half><p class="glass half">15</p></div></section>
      """;

    /** Pages on boxes as large as the window: always there, or coming and going; the last of them beside what isolates. */
    private static final List<String> BENEATH = List.of(
            "<!doctype html><style>body{background:#f4efe6;color:#333} i::before,u::after{content:'';position:fixed;inset:0;z-index:-1;background:#123;animation:comes 1s;opacity:0}"
                    + " u::after{background:rgb(200 40 40 / 80%)} .solid{background:#fff} .glass{background:rgb(255 255 255 / 70%)} .half{opacity:.5}</style><i></i><u></u>"
                    + "<p>1</p><div class=solid><p>2</p></div><div class=glass><p>3</p></div><div class=half><p>4</p><p class=solid>5</p></div>",
            "<!doctype html><style>html{background:#fff} body{background:#dfd} i::before{content:'';position:fixed;inset:0;z-index:-1;background:#123;animation:comes 1s}</style><i></i><p>1</p>",
            "<!doctype html><style>i{position:fixed;top:0;left:0;width:100%;height:100vh;z-index:-3;background:#246;opacity:.5} body{color:#fff}</style><i></i><p>1</p>",
            "<!doctype html><style>main{isolation:isolate;background:#eee} i::before{content:'';position:fixed;inset:0;z-index:-1;background:#123;animation:comes 1s}</style><main><i></i><p>1</p></main><p>2</p>",
            "<!doctype html><style>i::before{content:'';position:fixed;inset:0 0 50% 0;z-index:-1;background:#123}</style><i></i><p>1</p>");

    @Test
    @SuppressWarnings("unchecked")
    void theScriptSeesWhatCoreSeesOnAPageThatChanges() throws IOException {
        int changing = 0;
        for (String html : BENEATH) {
            Page browser = Browsers.page(1000, 800);
            browser.setContent(html);
            List<Map<String, Object>> theirs = (List<Map<String, Object>>) browser.evaluate("() => { " + reckoning()
                    + " const boxes = beneath(); return [...document.querySelectorAll('p')].map(p => { const s = seenThrough(p, bytes(getComputedStyle(p).color), new Map(), boxes);"
                    + " return { ways: s.ways.length, unknown: s.unknown, ratio: ratio(s.text, s.ground) } }) }");
            org.calmpalette.core.page.Page page =
                    org.calmpalette.core.page.Page.read("index.html", html.getBytes(StandardCharsets.UTF_8));
            PageStyles styles = PageStyles.sheets(page, f -> Optional.empty()).in(Viewport.of(1000, 800), States.NONE);
            Backdrop.Reader reader = new Backdrop.Reader(styles, f -> true);
            List<Element> texts = page.document().getElementsByTag("p");
            assertThat(theirs).hasSameSizeAs(texts);
            for (int i = 0; i < texts.size(); i++) {
                Backdrop backdrop = reader.of(texts.get(i));
                Color text = styles.of(texts.get(i)).colorOf("color").orElseThrow();
                boolean changes = backdrop.unknown() == Backdrop.Unknown.CHANGES;
                String which = html + " text " + texts.get(i).text();
                assertThat(theirs.get(i).get("unknown")).as(which).isEqualTo(false);
                assertThat((int) theirs.get(i).get("ways") > 1).as(which).isEqualTo(changes);
                assertThat(((Number) theirs.get(i).get("ratio")).doubleValue())
                        .as(which)
                        .isCloseTo(
                                changes
                                        ? backdrop.range(text).orElseThrow().least()
                                        : backdrop.under(text).ratio(),
                                org.assertj.core.data.Offset.offset(0.06));
                changing += changes ? 1 : 0;
            }
        }
        assertThat(changing).isEqualTo(5);
    }

    /** The parts of the script that reckon with colours, without those that speak with the desk. */
    private static String reckoning() throws IOException {
        String script = asset("frame.js");
        return asset("paint.js").replace("export ", "")
                + script.substring(script.indexOf("// Colours as bytes"), script.indexOf("const LONGHANDS"))
                + script.substring(script.indexOf("// What is seen of a text"), script.indexOf("const look = (seen)"));
    }

    private static String asset(String name) throws IOException {
        try (InputStream in = FrameContrastTest.class.getResourceAsStream("/static/assets/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    @SuppressWarnings("unchecked")
    void theScriptSeesWhatCoreSees() throws IOException {
        Page browser = Browsers.page(1000, 800);
        browser.setContent(HTML);
        List<Map<String, Object>> theirs = (List<Map<String, Object>>)
                browser.evaluate(
                        "() => { " + reckoning()
                                + " return [...document.querySelectorAll('p')].map(p => { const s = seenThrough(p, bytes(getComputedStyle(p).color));"
                                + " return { unknown: s.unknown, ratio: ratio(s.text, s.ground), channels: [s.text.r, s.text.g, s.text.b, s.ground.r, s.ground.g, s.ground.b].map(Number) } }) }");
        org.calmpalette.core.page.Page page =
                org.calmpalette.core.page.Page.read("index.html", HTML.getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, f -> Optional.empty()).in(Viewport.of(1000, 800), States.NONE);
        Backdrop.Reader reader = new Backdrop.Reader(styles, f -> true);
        List<Element> texts = page.document().getElementsByTag("p");
        int known = 0;
        for (int i = 0; i < texts.size(); i++) {
            Backdrop backdrop = reader.of(texts.get(i));
            String which = "text " + texts.get(i).text();
            assertThat(theirs.get(i).get("unknown")).as(which).isEqualTo(backdrop.unknown() != null);
            if (backdrop.unknown() == null) {
                Backdrop.Seen seen =
                        backdrop.under(styles.of(texts.get(i)).colorOf("color").orElseThrow());
                // The script has whole bytes of each colour to begin with.
                List<Number> channels = (List<Number>) theirs.get(i).get("channels");
                double[] ours = channels(seen.text(), seen.ground());
                for (int c = 0; c < 6; c++) {
                    assertThat(channels.get(c).doubleValue())
                            .as(which)
                            .isCloseTo(ours[c], org.assertj.core.data.Offset.offset(1.0));
                }
                assertThat(((Number) theirs.get(i).get("ratio")).doubleValue())
                        .as(which)
                        .isCloseTo(seen.ratio(), org.assertj.core.data.Offset.offset(0.06));
                known++;
            }
        }
        assertThat(known).isGreaterThanOrEqualTo(10);
    }

    private static double[] channels(Color text, Color ground) {
        double[] all = new double[6];
        for (int i = 0; i < 2; i++) {
            Color c = (i == 0 ? text : ground).toGamut();
            all[3 * i] = c.c0() * 255;
            all[3 * i + 1] = c.c1() * 255;
            all[3 * i + 2] = c.c2() * 255;
        }
        return all;
    }
}
