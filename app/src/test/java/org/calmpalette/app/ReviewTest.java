package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is shown before a site goes live, and before an edition is taken back: whose changes, and what is hard to read. */
class ReviewTest {
    private final Running running = Running.get();
    private final Client maker = new Client(running.address).signedIn("ida");
    private Client owner;
    private String theme;
    private String site;

    @BeforeEach
    void aSite() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(
                Map.of(
                        "index.html",
                        bytes(
                                "<!doctype html><link rel=stylesheet href=a.css><h1 data-setting-text=heading>Boats</h1><p>Every hour."),
                        "a.css",
                        bytes("p { color: var(--ink) } h1 { color: var(--turned) }"),
                        "palette.json",
                        bytes(
                                """
                        {"name": "Quay", "places": [{"key": "p", "label": "Quay"}], "settings": [
                          {"key": "heading", "label": "Heading", "place": "p", "kind": "line", "default": "Boats", "perBand": true},
                          {"key": "ink", "label": "Ink", "place": "p", "kind": "color", "default": "#102030"},
                          {"key": "turned", "label": "Turned", "place": "p", "kind": "color", "default": {"follows": "ink"}}]}""")));
        theme = maker.bringIn("quay.zip", HostileThemesInTheApplicationTest.zip(files));
        String ownerName = running.newOwner();
        String name = "Quay " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", ownerName)
                        .statusCode())
                .isEqualTo(302);
        owner = new Client(running.address).signedIn(ownerName);
        site = "/sites/" + name.toLowerCase().replace(' ', '-');
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** The words of the page without its markup. */
    private String review(String address) {
        HttpResponse<String> answer = owner.get(site + address);
        assertThat(answer.statusCode()).isEqualTo(200);
        return new String(answer.body().getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8)
                .replaceFirst("(?s)^.*<main", "<main")
                .replaceFirst("(?s)</main>.*$", "")
                .replaceAll("(?s)<option.*?</option>|<[^>]*>", " ")
                .replaceAll("\\s+", " ");
    }

    private String field(String name) {
        return owner.get(site + "/review")
                .body()
                .replaceFirst("(?s).*name=\"" + name + "\"\\s+value=\"(\\d+)\".*", "$1");
    }

    @Test
    void whatIsLookedAtIsWhatGoesLive() {
        assertThat(review("/review")).contains("Nothing is live yet").doesNotContain("Live now", "Hard to read");
        assertThat(owner.post(site + "/go-live", "base", field("base"), "snapshot", field("snapshot"))
                        .headers()
                        .firstValue("location")
                        .orElseThrow())
                .endsWith(site);
        assertThat(review("/review")).contains("Nothing changes: it is what visitors see now.", "Live now");

        owner.post(site + "/choose", "key", "ink", "v", "#dddddd");
        owner.post(site + "/choose", "key", "heading", "band", "phone", "v", "Boat");
        // What follows the ink is told with it, not beside it.
        assertThat(review("/review"))
                .contains("Hard to read “Boats” on index.html “Every hour.” on index.html")
                .contains(
                        "You changed Quay Heading on phone “Boats” → “Boat” Quay Ink #102030 (near black) → #dddddd (light grey)")
                .contains("Go live all the same")
                .doesNotContain("Turned", "The maker changed");

        // Somebody changes something between looking and pressing: it is shown once more, and nothing goes live.
        String seen = field("base");
        String snapshot = field("snapshot");
        owner.post(site + "/choose", "key", "ink", "v", "#cccccc");
        assertThat(owner.post(site + "/go-live", "base", seen, "snapshot", snapshot)
                        .headers()
                        .firstValue("location")
                        .orElseThrow())
                .endsWith(site + "/review");
        assertThat(owner.get("/at" + site.substring(6) + "/").body()).doesNotContain("cccccc");
        assertThat(review("/review")).contains("#102030 (near black) → #cccccc (light grey)");
    }

    @Test
    void whatTheMakerChangedIsToldApart() {
        owner.post(site + "/go-live");
        owner.post(site + "/choose", "key", "heading", "v", "Late boats");
        assertThat(maker.post(
                                theme + "/settings",
                                "base",
                                maker.base(theme),
                                "key",
                                "ink",
                                "label",
                                "Ink",
                                "place",
                                "Quay",
                                "v.how",
                                "own",
                                "v",
                                "#aaaaaa")
                        .statusCode())
                .isIn(200, 302);
        String id = maker.get(theme + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/update.*", "$1");
        assertThat(maker.post(theme + "/sites/" + id + "/update").statusCode()).isEqualTo(302);
        assertThat(review("/review"))
                .contains("You changed Quay Heading “Boats” → “Late boats”")
                .contains("The maker changed Quay Ink #102030 (near black) → #aaaaaa (grey)")
                .contains("“Every hour.” on index.html");
        owner.post(site + "/go-live");
        // Back to the first edition: both the choice and the theme of then.
        assertThat(review("/editions/1"))
                .contains("Edition 1", "Chosen otherwise then Quay Heading “Late boats” → “Boats”")
                .contains("The theme was another one then Quay Ink #aaaaaa (grey) → #102030 (near black)")
                .contains("Take it back")
                .doesNotContain("Hard to read");
        assertThat(owner.get(site + "/editions/7").statusCode()).isEqualTo(404);
        assertThat(maker.get(site + "/editions/1").statusCode()).isEqualTo(404);
        assertThat(maker.get(site + "/review").statusCode()).isEqualTo(404);
    }

    /** Whose theme is more than can be looked at here goes live all the same. */
    @Test
    void aThemeThatIsTooLargeToBeLookedAtGoesLive() throws IOException {
        // Each text looks otherwise under the pointer, so each is asked by itself.
        StringBuilder css = new StringBuilder();
        for (int i = 0; i < 200; i++) {
            css.append("main > p:nth-child(")
                    .append(i + 7)
                    .append("n):hover { color: #")
                    .append(100 + i)
                    .append(" }\n");
        }
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                bytes("<!doctype html><link rel=stylesheet href=a.css><main>" + "<p>Every hour.</p>".repeat(4_000)
                        + "</main>"),
                "a.css",
                bytes(css.toString())));
        String large = maker.bringIn("large.zip", HostileThemesInTheApplicationTest.zip(files));
        String name = "Large " + System.nanoTime();
        assertThat(maker.post(large + "/sites", "name", name, "whose", "me").statusCode())
                .isEqualTo(302);
        owner = maker;
        site = "/sites/" + name.toLowerCase().replace(' ', '-');
        assertThat(review("/review")).contains("was not looked at", "Go live now");
        assertThat(owner.post(site + "/go-live", "base", field("base"), "snapshot", field("snapshot"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(owner.get("/at" + site.substring(6) + "/").statusCode()).isEqualTo(200);
    }

    /** As it is live and as it was made are two things; and nothing ticked is not all. */
    @Test
    void whatIsPutBackIsWhatIsTicked() {
        owner.post(site + "/choose", "key", "ink", "v", "#304050");
        owner.post(site + "/go-live");
        owner.post(site + "/choose", "key", "ink", "v", "#405060");
        owner.post(site + "/choose", "key", "heading", "v", "Late boats");
        assertThat(owner.post(site + "/put-back", "ticked", "true", "to", "made")
                        .statusCode())
                .isEqualTo(422);
        assertThat(choices()).contains("#405060", "Late boats");
        assertThat(owner.post(site + "/put-back", "ticked", "true", "to", "live", "key", "ink")
                        .statusCode())
                .isEqualTo(200);
        assertThat(choices()).contains("#304050", "Late boats");
        owner.post(site + "/put-back", "ticked", "true", "to", "made", "key", "ink");
        assertThat(choices()).doesNotContain("ink").contains("Late boats");
        owner.post(site + "/put-back");
        assertThat(choices()).contains("#304050").doesNotContain("Late boats");
    }

    private String choices() {
        return owner.get(site + "/choices.json").body();
    }

    /** Any two editions, whatever is live. */
    @Test
    void anEditionIsLookedAtBesideAnyOther() {
        owner.post(site + "/go-live", "word", "grey");
        owner.post(site + "/choose", "key", "ink", "v", "#204060");
        owner.post(site + "/go-live", "base", field("base"), "snapshot", field("snapshot"), "word", "for the summer");
        owner.post(site + "/choose", "key", "ink", "v", "#602040");
        owner.post(site + "/go-live");
        assertThat(review("/editions/1"))
                .contains("Live now", "Ink #602040", "→ #102030")
                .doesNotContain("#204060");
        assertThat(review("/editions/1?beside=2"))
                .contains("Ink #204060", "→ #102030", "Edition 2")
                .doesNotContain("Live now", "#602040");
        assertThat(owner.page(site + "/editions/1?beside=2")
                        .select("#review-beside option")
                        .eachText())
                .containsExactly("Live now", "Edition 2, “for the summer”");
        assertThat(owner.page(site + "/editions/1?beside=2")
                        .select("#review-beside option[selected]")
                        .val())
                .isEqualTo("2");
        // Beside itself it would show nothing, so it stands beside what is live.
        assertThat(review("/editions/1?beside=1")).contains("Live now");
        assertThat(owner.get(site + "/editions/1?beside=9").statusCode()).isEqualTo(404);
        assertThat(new Client(running.address)
                        .signedIn(running.newOwner())
                        .get(site + "/editions/1?beside=2")
                        .statusCode())
                .isEqualTo(404);
    }

    /** Where the maker says so an owner cannot choose what makes a text hard to read; what is hard already stays as it is. */
    @Test
    void ownersKeepTextsReadableWhereTheMakerAsksForIt() {
        assertThat(owner.post(site + "/choose", "key", "turned", "v", "#eeeeee").statusCode())
                .isEqualTo(200);
        maker.post(
                theme + "/promises/thresholds",
                "base",
                maker.base(theme),
                "level",
                "AA",
                "pictures",
                "1500",
                "kept",
                "true");
        String id = maker.get(theme + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/remove.*", "$1");
        maker.post(theme + "/sites/" + id + "/update");
        String refused =
                owner.post(site + "/choose", "key", "ink", "v", "#dddddd").body();
        assertThat(refused).contains("would be hard to read, and texts stay readable on this site");
        assertThat(owner.post(site + "/try", "key", "ink", "v", "#dddddd").body())
                .contains("would be hard to read");
        assertThat(owner.get(site + "/choices.json").body()).contains("#eeeeee").doesNotContain("#dddddd");
        // One that can be read, another for what is hard to read already, and the way back.
        assertThat(owner.post(site + "/choose", "key", "ink", "v", "#203040").statusCode())
                .isEqualTo(200);
        assertThat(owner.post(site + "/choose", "key", "turned", "v", "#f0f0f0").statusCode())
                .isEqualTo(200);
        assertThat(owner.post(site + "/as-made", "key", "turned").statusCode()).isEqualTo(200);
        assertThat(owner.post(site + "/choose", "key", "turned", "v", "#f0f0f0").statusCode())
                .isEqualTo(422);
        HttpResponse<String> file = owner.upload(
                site + "/choices.json", "c.json", "{\"ink\": \"#cccccc\"}".getBytes(StandardCharsets.UTF_8));
        assertThat(file.body()).contains("The choices of the file were not taken over");
        assertThat(owner.get(site + "/area?key=ink&saturation=50&at=%23dddddd").body())
                .contains("Striped: not allowed, as some words");
    }

    /** Taking a choice back is never refused, though it makes a text hard to read: what the maker made is the maker's to answer for. */
    @Test
    void theWayBackToWhatWasMadeIsOpenWhereTextsStayReadable() throws IOException {
        String two = paperAndInk();
        String name = "Back " + System.nanoTime();
        maker.post(two + "/sites", "name", name, "whose", "me");
        String back = "/sites/" + name.toLowerCase().replace(' ', '-');
        maker.post(back + "/choose", "key", "paper", "v", "#777777");
        maker.post(back + "/choose", "key", "ink", "v", "#000000");
        String base = maker.base(two);
        maker.post(two + "/promises/thresholds", "base", base, "level", "AA", "pictures", "1500", "kept", "true");
        String id = maker.get(two + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/remove.*", "$1");
        maker.post(two + "/sites/" + id + "/update");
        // Near to what was made and as hard to read, but a choice.
        assertThat(maker.post(back + "/choose", "key", "ink", "v", "#102031").statusCode())
                .isEqualTo(422);
        // What was made, chosen by hand or by the way back: tried and kept alike.
        assertThat(maker.post(back + "/try", "key", "ink", "v", "#102030").body())
                .doesNotContain("hard to read");
        assertThat(maker.post(back + "/choose", "key", "ink", "v", "#102030").statusCode())
                .isEqualTo(200);
        assertThat(maker.get(back + "/choices.json").body()).doesNotContain("ink");
    }

    private String paperAndInk() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(
                Map.of(
                        "index.html",
                        bytes("<!doctype html><link rel=stylesheet href=a.css><p>Every hour."),
                        "a.css",
                        bytes("body { background: var(--paper) } p { color: var(--ink) }"),
                        "palette.json",
                        bytes(
                                """
                        {"name": "Two", "places": [{"key": "p", "label": "P"}], "settings": [
                          {"key": "paper", "label": "Paper", "place": "p", "kind": "color", "default": "#ffffff", "allowed": {"swatches": ["#ffffff", "#777777"]}},
                          {"key": "ink", "label": "Ink", "place": "p", "kind": "color", "default": "#102030"}]}""")));
        return maker.bringIn("two.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    /** The maker chooses which colours an owner's field shows as safe: as all else is now, or whatever else is chosen. */
    @Test
    void theMakerChoosesWhichAreaOwnersSee() throws IOException {
        String two = paperAndInk();
        String name = "Two " + System.nanoTime();
        maker.post(two + "/sites", "name", name, "whose", "me");
        String at = "/sites/" + name.toLowerCase().replace(' ', '-') + "/area?key=ink&saturation=50&at=%23333333";
        assertThat(maker.get(at).body()).contains("Clearly readable.", "Striped: some words would be hard to read");
        maker.post(
                two + "/promises/thresholds",
                "base",
                maker.base(two),
                "level",
                "AA",
                "pictures",
                "1500",
                "whatever",
                "true");
        String id = maker.get(two + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/remove.*", "$1");
        maker.post(two + "/sites/" + id + "/update");
        assertThat(maker.get(at).body())
                .contains(
                        "could be hard to read, with something else that may be chosen",
                        "Striped: some words could be");
        assertThat(maker.page(two + "/history").text())
                .contains("owners are shown the colours that are safe whatever else they choose");
    }
}
