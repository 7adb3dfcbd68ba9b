package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.TreeMap;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.jsoup.nodes.Document;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Several people have a site: how they come, how they go, and what becomes of it. */
class OwnersOfASiteTest {
    private static final String PASSWORD = "a long password";

    private final Running running = Running.get();
    private final AccountService accounts = running.bean(AccountService.class);
    private final JdbcClient database = running.bean(JdbcClient.class);
    private final String unlike = String.valueOf(System.nanoTime());
    private Client maker;
    private String theme;
    private String site;
    private String id;

    private Client person(String name, Role role) {
        accounts.create(name + unlike, name, PASSWORD, role);
        return new Client(running.address).signedIn(name + unlike, PASSWORD);
    }

    private static String bring(Client maker) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:var(--ink, #123456)}".getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                """
                {"name": "T", "places": [{"key": "p", "label": "P"}],
                 "settings": [{"key": "ink", "label": "Ink", "kind": "color", "place": "p", "default": "#123456"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        return maker.bringIn("owners.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    @BeforeEach
    void aSiteOfMira() {
        maker = person("maker", Role.MAKER);
        theme = bring(maker);
        String name = "Owned " + unlike;
        site = "/sites/" + name.toLowerCase().replace(' ', '-');
        accounts.create("mira" + unlike, "Mira", PASSWORD, Role.OWNER);
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", "mira" + unlike)
                        .statusCode())
                .isEqualTo(302);
        id = database.sql("select id from site where name = ?")
                .param(name)
                .query(String.class)
                .single();
    }

    private Client mira() {
        return new Client(running.address).signedIn("mira" + unlike, PASSWORD);
    }

    private static String invitation(Client who, String site) {
        assertThat(who.post(site + "/people/invite").statusCode()).isEqualTo(302);
        String address = who.page(site + "/people").select("input[readonly]").val();
        return address.substring(address.indexOf("/join/"));
    }

    private long idOf(String name) {
        return accounts.findBySignIn(name + unlike).orElseThrow().id();
    }

    /** One with a new account, one with the account that they have; each choice says whose it is. */
    @Test
    void anOwnerAsksOthersIn() {
        Client mira = mira();
        String first = invitation(mira, site);
        Client guest = new Client(running.address);
        assertThat(guest.page(first).text()).contains("If you have an account here");
        assertThat(guest.post(first, "signIn", "tam" + unlike, "name", "Tam", "password", PASSWORD)
                        .statusCode())
                .isEqualTo(302);
        assertThat(new Client(running.address).get(first).body()).contains("has been used, is over, or was withdrawn");
        Client nell = person("nell", Role.OWNER);
        String second = invitation(mira, site);
        assertThat(nell.page(second).text()).contains("You are signed in as nell");
        assertThat(nell.get(site).statusCode()).isEqualTo(404);
        HttpResponse<String> in = nell.post(second + "/as-me");
        assertThat(in.headers().firstValue("Location").orElse("")).endsWith(site);
        assertThat(nell.page(site + "/people").select(".uses li").eachText())
                .containsExactly("Mira", "nell you", "Tam");
        Client tam = new Client(running.address).signedIn("tam" + unlike, PASSWORD);
        tam.post(site + "/choose", "key", "ink", "v", "#224466");
        assertThat(mira.get(site + "/choices.json").body()).contains("#224466");
        assertThat(database.sql("select author from site_draft where site_id = ? order by id desc limit 1")
                        .param(id)
                        .query(String.class)
                        .single())
                .isEqualTo("Tam");
        assertThat(maker.page(theme + "/handover").select("td details summary").eachText())
                .contains("Mira", "Tam", "nell");
        // A maker's account is none of an owner's.
        String third = invitation(mira, site);
        assertThat(maker.post(third + "/as-me").body()).contains("You are signed in as a maker");
        assertThat(new Client(running.address).get(third).statusCode()).isEqualTo(200);
    }

    @Test
    void invitationsEndByThemselvesAndAreWithdrawn() {
        Client mira = mira();
        String open = invitation(mira, site);
        Client guest = new Client(running.address);
        assertThat(guest.get(open).statusCode()).isEqualTo(200);
        assertThat(mira.post(site + "/people/withdraw").statusCode()).isEqualTo(302);
        assertThat(guest.get(open).statusCode()).isEqualTo(422);
        String other = invitation(mira, site);
        database.sql("update site set invited_until = utc_timestamp() - interval 1 minute where id = ?")
                .param(id)
                .update();
        assertThat(guest.get(other).statusCode()).isEqualTo(422);
        assertThat(guest.post(other, "signIn", "late" + unlike, "name", "Late", "password", PASSWORD)
                        .statusCode())
                .isEqualTo(422);
        assertThat(accounts.findBySignIn("late" + unlike)).isEmpty();
        assertThat(mira.page(site + "/people").select("button").eachText()).contains("Make an invitation");
        assertThat(maker.get(theme + "/handover").body()).doesNotContain("Invited until");
    }

    @Test
    void whoLeavesLeavesTheSiteToTheOthersOrToItsMaker() {
        Client mira = mira();
        Client nell = person("nell", Role.OWNER);
        nell.post(invitation(mira, site) + "/as-me");
        mira.post(site + "/choose", "key", "ink", "v", "#224466");
        assertThat(mira.page(site + "/people").text()).contains("The others keep it as it is.");
        assertThat(mira.post(site + "/people/leave").statusCode()).isEqualTo(302);
        assertThat(mira.get(site).statusCode()).isEqualTo(404);
        assertThat(nell.get(site + "/choices.json").body()).contains("#224466");
        assertThat(maker.get(site).statusCode()).isEqualTo(404);
        assertThat(nell.page(site + "/people").text()).contains("is its maker’s from then on");
        nell.post(site + "/people/leave");
        assertThat(nell.get(site).statusCode()).isEqualTo(404);
        assertThat(maker.get(site + "/choices.json").body()).contains("#224466");
        assertThat(maker.post(site + "/people/leave").body()).contains("nobody else has it");
        assertThat(maker.get(site).statusCode()).isEqualTo(200);
    }

    @Test
    void itsMakerTakesSomebodyOffAndAddsThemAgain() {
        Client nell = person("nell", Role.OWNER);
        String give = theme + "/sites/" + id + "/give";
        assertThat(maker.post(give, "owner", "nell" + unlike).statusCode()).isEqualTo(302);
        assertThat(nell.get(site).statusCode()).isEqualTo(200);
        String off = theme + "/sites/" + id + "/owners/" + idOf("mira") + "/take-off";
        assertThat(maker.post(off).statusCode()).isEqualTo(302);
        assertThat(maker.post(off).statusCode())
                .as("nobody of that name any more")
                .isEqualTo(404);
        assertThat(mira().get(site).statusCode()).isEqualTo(404);
        assertThat(nell.get(site).statusCode()).isEqualTo(200);
        maker.post(give, "owner", "mira" + unlike);
        assertThat(mira().get(site).statusCode()).isEqualTo(200);
        // An account that is removed leaves nothing behind.
        nell.post("/account/remove", "password", PASSWORD);
        assertThat(accounts.findBySignIn("nell" + unlike)).isEmpty();
        assertThat(mira().page(site + "/people").select(".uses li").eachText()).containsExactly("Mira you");
    }

    @Test
    void aForgottenPasswordIsRenewedByALinkThatWorksOnce() {
        Client before = mira();
        String ask = theme + "/sites/" + id + "/owners/" + idOf("mira") + "/password";
        Document page = new Document("");
        page.html(maker.post(ask).body());
        String address = page.select("input[readonly]").val();
        String link = address.substring(address.indexOf("/password/"));
        assertThat(database.sql("select token_hash from password_link where account_id = ?")
                        .param(idOf("mira"))
                        .query(String.class)
                        .single())
                .as("what stands in the link is not kept")
                .doesNotContain(link.replace("/password/", ""));
        assertThat(maker.get(theme + "/handover").body()).as("shown once").doesNotContain(link);
        Client anybody = new Client(running.address);
        assertThat(anybody.page(link).text()).contains("For Mira, who signs in as mira");
        assertThat(anybody.post(link, "next", "short").body()).contains("too few or too many");
        assertThat(before.get(site).statusCode()).isEqualTo(200);
        assertThat(anybody.post(link, "next", "another long one")
                        .headers()
                        .firstValue("Location")
                        .orElse(""))
                .endsWith("/sign-in?renewed");
        assertThat(before.get(site).statusCode()).as("signed out everywhere").isEqualTo(302);
        assertThat(new Client(running.address)
                        .signedIn("mira" + unlike, "another long one")
                        .get(site)
                        .statusCode())
                .isEqualTo(200);
        assertThat(anybody.post(link, "next", "yet another long one").body()).contains("is over, or was used");
        // An earlier link ends with the next one, and each by itself.
        page.html(maker.post(ask).body());
        String second = page.select("input[readonly]").val();
        maker.post(ask);
        assertThat(anybody.get(second).body()).contains("is over, or was used");
        page.html(maker.post(ask).body());
        String last = page.select("input[readonly]").val();
        assertThat(anybody.get(last).statusCode()).isEqualTo(200);
        database.sql("update password_link set until = utc_timestamp() - interval 1 minute where account_id = ?")
                .param(idOf("mira"))
                .update();
        assertThat(anybody.get(last).statusCode()).isEqualTo(422);
    }

    /** Who has such a link is that owner, so a maker gets none for an owner who has something of another maker's. */
    @Test
    void noMakerRenewsThePasswordOfAnothersOwner() {
        String ask = theme + "/sites/" + id + "/owners/" + idOf("mira") + "/password";
        Client other = person("other", Role.MAKER);
        assertThat(other.post(ask).statusCode()).isEqualTo(404);
        String theirs = bring(other);
        other.post(theirs + "/sites", "name", "Theirs " + unlike, "whose", "owner", "owner", "mira" + unlike);
        assertThat(maker.post(ask).body()).contains("has a site of another maker too", "./calm password mira" + unlike);
        Client ida = new Client(running.address).signedIn("ida");
        String demo = ida.page(running.towpath() + "/handover")
                .select("tr:contains(Sallowmere Ferries) form[action$=/password]")
                .attr("action");
        assertThat(ida.post(demo).body()).contains("The people of the demo stay as they are");
    }

    @Test
    void whoChangesTheirNameIsKnownByItFromThenOn() {
        Client mira = mira();
        assertThat(mira.post("/account/name", "name", " ").body()).contains("The name is missing.");
        assertThat(mira.post("/account/name", "name", "Mira Otterby").statusCode())
                .isEqualTo(302);
        assertThat(mira.page("/account").text()).contains("Mira Otterby, signed in as mira");
        mira.post(site + "/choose", "key", "ink", "v", "#224466");
        assertThat(database.sql("select author from site_draft where site_id = ? order by id desc limit 1")
                        .param(id)
                        .query(String.class)
                        .single())
                .isEqualTo("Mira Otterby");
        assertThat(new Client(running.address)
                        .signedIn("jonas")
                        .post("/account/name", "name", "X")
                        .body())
                .contains("The people of the demo stay as they are");
    }
}
