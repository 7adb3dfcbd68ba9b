package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/**
 * An owner who tries everything within reach, where the maker keeps what makes a text hard to read from them: each control to both ends and
 * along its middle, each step on top of all before it. What is taken is shown, and axe-core looks at its contrasts.
 */
class WithinReachTest {
    private static final String PALETTE =
            """
            {"name": "Reach", "places": [{"key": "p", "label": "Page"}],
             "promises": [{"threshold": "readable", "level": "AA", "owners": "keep"}],
             "settings": [
              {"key": "ink", "label": "Ink", "place": "p", "kind": "color", "default": "#1c1e20"},
              {"key": "ground", "label": "Ground", "place": "p", "kind": "color", "default": "#ffffff", "perBand": true},
              {"key": "strip", "label": "Strip", "place": "p", "kind": "color", "default": "#24463a", "allowed": {"bounds": {"lightness": [10, 90]}}},
              {"key": "on-strip", "label": "On the strip", "place": "p", "kind": "color", "default": {"follows": "strip", "readable": {"dark": "#111111", "light": "#ffffff"}}},
              {"key": "link", "label": "Links", "place": "p", "kind": "color", "default": "#0b5c8a", "allowed": {"swatches": ["#0b5c8a", "#7a1f5c", "#d0d0d0", "#111111"]}},
              {"key": "veil", "label": "Veil", "place": "p", "kind": "color", "default": "#ffffffcc"},
              {"key": "fade", "label": "Fade", "place": "p", "kind": "number", "default": 1, "allowed": {"least": 0, "most": 1, "step": 0.1}},
              {"key": "size", "label": "Size", "place": "p", "kind": "length", "default": {"value": 2, "unit": "rem"}, "allowed": {"units": [{"unit": "rem", "least": 0.75, "most": 3, "step": 0.25}]}},
              {"key": "aside", "label": "Aside", "place": "p", "kind": "yes-no", "default": true},
              {"key": "mood", "label": "Mood", "place": "p", "kind": "choice", "default": "day", "allowed": {"options": [{"key": "day", "label": "Day", "css": "#f4f1ea"}, {"key": "night", "label": "Night", "css": "#14202b"}]}}]}""";

    private static final String PAGE =
            """
            <!doctype html><html lang=en><head><meta name=viewport content=width=device-width><title>Reach</title><link rel=stylesheet href=a.css></head><body>
            <header class=strip><h1>Boats</h1><a href=more.html>Times</a></header><main><p class=lead>Every hour from the quay.</p>
            <p>Ask <a href=more.html>at the pier</a>.</p><p class=faded>No boats in fog.</p><div class=veil><p>Over a ground.</p></div>
            <aside data-setting-show=aside><p class=mood>The quay at six.</p></aside></main></body></html>""";

    private static final String SHEET =
            """
            body { color: var(--ink, #1c1e20); background: var(--ground, #ffffff); margin: 0 }
            .strip { background: var(--strip, #24463a); color: var(--on-strip, #ffffff) } .strip a { color: inherit }
            main a { color: var(--link, #0b5c8a) } .lead { font-size: var(--size, 2rem); color: color-mix(in srgb, var(--ink, #1c1e20) 80%, var(--ground, #ffffff)) }
            .faded { opacity: var(--fade, 1) } .veil { background: var(--veil, #ffffffcc); color: #333333 }
            .mood { background: var(--mood, #f4f1ea); color: #1c1e20 }""";

    private static final Map<String, List<String>> TRIED = new TreeMap<>(Map.of(
            "ink", List.of("v=#ffffff", "v=#808080", "v=#000000", "v=#c01010", "v=#10107080"),
            "ground",
                    List.of(
                            "v=#000000",
                            "v=#777777",
                            "v=#ffffff",
                            "v=#ffe9c4",
                            "band=phone&v=#202020",
                            "band=phone&v=#eeeeee"),
            "strip", List.of("v=#1a1a1a", "v=#767676", "v=#e0e0e0", "v=#0000ff"),
            "on-strip", List.of("v=#767676", "v=#ffffff", "v=#000000"),
            "link", List.of("v=#d0d0d0", "v=#7a1f5c", "v=#111111"),
            "veil", List.of("v=#00000000", "v=#00000080", "v=#ffffff", "v=#88888840"),
            "fade", List.of("v=0", "v=0.1", "v=0.5", "v=0.6", "v=0.9", "v=1"),
            "size", List.of("v.value=0.75&v.unit=rem", "v.value=1.5&v.unit=rem", "v.value=3&v.unit=rem"),
            "aside", List.of("v=false", "v=true"),
            "mood", List.of("v=night", "v=day")));

    private final Running running = Running.get();

    @Test
    void noPageThatAnOwnerGetsIsHardToRead() {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html", bytes(PAGE),
                "more.html", bytes("<!doctype html><html lang=en><title>More</title><h1>More</h1>"),
                "a.css", bytes(SHEET),
                "palette.json", bytes(PALETTE)));
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn("reach.zip", HostileThemesInTheApplicationTest.zip(files));
        String name = running.newOwner();
        String called = "Reach " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", called, "whose", "owner", "owner", name)
                        .statusCode())
                .isEqualTo(302);
        String site = "/sites/" + called.toLowerCase().replace(' ', '-');
        Client owner = new Client(running.address).signedIn(name);
        Page wide = running.visitor(1280, 800);
        Page phone = running.visitor(390, 844);
        List<String> faults = new ArrayList<>();
        int taken = 0;
        int refused = 0;
        look(owner, site, "as made", wide, "wide", faults);
        look(owner, site, "as made", phone, "phone", faults);
        for (int round = 0; round < 2; round++) {
            int step = 0;
            for (Map.Entry<String, List<String>> control : TRIED.entrySet()) {
                for (String value : control.getValue()) {
                    List<String> fields = new ArrayList<>(List.of("key", control.getKey()));
                    for (String field : value.split("&")) {
                        fields.addAll(List.of(field.split("=", 2)));
                    }
                    HttpResponse<String> answer = owner.post(site + "/choose", fields.toArray(String[]::new));
                    assertThat(answer.statusCode())
                            .as(control + value + answer.body())
                            .isIn(200, 422);
                    step++;
                    if (answer.statusCode() == 200) {
                        taken++;
                        // In one of the windows in turn: the second time round it is the other one's.
                        boolean narrow = (step + round) % 2 == 0;
                        look(
                                owner,
                                site,
                                control.getKey() + " " + value,
                                narrow ? phone : wide,
                                narrow ? "phone" : "wide",
                                faults);
                    } else {
                        refused++;
                    }
                }
            }
        }
        assertThat(faults).isEmpty();
        assertThat(taken).as("steps that were taken").isGreaterThan(25);
        assertThat(refused).as("steps that were refused").isGreaterThan(15);
    }

    private void look(Client owner, String site, String step, Page page, String window, List<String> faults) {
        String preview = owner.page(site).select("iframe[data-width]").attr("src");
        page.navigate(preview.startsWith("http") ? preview : running.address + preview);
        Axe.violations(page).stream()
                .filter(v -> v.startsWith("color-contrast"))
                .forEach(v -> faults.add(window + " after " + step + ": " + v));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
