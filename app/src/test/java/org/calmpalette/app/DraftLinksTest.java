package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** A link that opens the draft on a phone: for a limited time, for looking only, until it is withdrawn. */
class DraftLinksTest {
    private final Running running = Running.get();

    @Test
    void showsTheDraftToWhoeverHasItUntilItIsWithdrawn() throws Exception {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                "<!doctype html><title>T</title><link rel=stylesheet href=a.css><h1 data-setting-text=words>Boats</h1><a href=more.html>More</a>"
                        .getBytes(StandardCharsets.UTF_8),
                "more.html",
                "<!doctype html><title>M</title><p>More".getBytes(StandardCharsets.UTF_8),
                "a.css",
                "h1 { color: red }".getBytes(StandardCharsets.UTF_8),
                "palette.json",
                """
                {"name": "T", "places": [{"key": "top", "label": "Top"}], "settings": [
                  {"key": "words", "label": "Words", "place": "top", "kind": "line", "default": "Boats"}]}"""
                        .getBytes(StandardCharsets.UTF_8)));
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn("hand.zip", HostileThemesInTheApplicationTest.zip(files));
        String name = running.newOwner();
        String called = "Hand " + System.nanoTime();
        maker.post(theme + "/sites", "name", called, "whose", "owner", "owner", name);
        String site = "/sites/" + called.toLowerCase().replace(' ', '-');
        Client owner = new Client(running.address).signedIn(name);
        assertThat(owner.get(site + "/hand").body()).contains("Make the link").doesNotContain("<svg");
        String link = Scan.of(owner.post(site + "/hand").body());
        assertThat(link).startsWith(running.address + "/frame/h").endsWith("/index.html");
        assertThat(Scan.of(owner.get(site + "/hand").body()))
                .as("the same as long as it holds")
                .isEqualTo(link);
        Client anybody = new Client(running.address);
        HttpResponse<String> seen = anybody.get(link);
        assertThat(seen.body()).contains("Boats").doesNotContain("<script");
        assertThat(seen.headers().firstValue("X-Robots-Tag")).contains("noindex, nofollow");
        assertThat(seen.headers().firstValue("Content-Security-Policy").orElse(""))
                .startsWith("sandbox");
        assertThat(seen.headers().firstValue("Set-Cookie")).isEmpty();
        assertThat(anybody.get(link.replace("index.html", "more.html")).statusCode())
                .isEqualTo(200);
        // It is the draft as it then is, and nothing is done by it.
        owner.post(site + "/choose", "key", "words", "v", "Ferries");
        assertThat(anybody.get(link).body()).contains("Ferries");
        assertThat(anybody.post(link.substring(running.address.length()), "v", "x")
                        .statusCode())
                .isIn(401, 403, 405);
        // A link of one's own making is none.
        assertThat(anybody.get(link.replaceFirst("/frame/h(\\d+)", "/frame/h1$1"))
                        .statusCode())
                .isEqualTo(404);
        String next = Scan.of(owner.post(site + "/hand").body());
        assertThat(next).isNotEqualTo(link);
        assertThat(anybody.get(link).statusCode())
                .as("another one takes its place")
                .isEqualTo(404);
        assertThat(anybody.get(link).body()).contains("over or was withdrawn");
        running.bean(JdbcClient.class)
                .sql(
                        "update site_hand set until = until - interval 4 day where site_id = (select id from site where slug = ?)")
                .param(site.replace("/sites/", ""))
                .update();
        assertThat(anybody.get(next).statusCode()).as("it is over").isEqualTo(404);
        assertThat(owner.get(site + "/hand").body()).contains("Make the link");
        String last = Scan.of(owner.post(site + "/hand").body());
        assertThat(anybody.get(last).statusCode()).isEqualTo(200);
        assertThat(owner.post(site + "/hand/withdraw").body()).contains("Make the link");
        assertThat(anybody.get(last).statusCode()).isEqualTo(404);
    }
}
