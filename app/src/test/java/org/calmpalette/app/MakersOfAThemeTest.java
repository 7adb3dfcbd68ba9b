package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Several makers work on a theme: how they come, what each may do, and what becomes of it when one goes. */
class MakersOfAThemeTest {
    private static final String PASSWORD = "a long password";

    private final Running running = Running.get();
    private final AccountService accounts = running.bean(AccountService.class);
    private final JdbcClient database = running.bean(JdbcClient.class);
    private final String unlike = String.valueOf(System.nanoTime());
    private Client ida;
    private Client tam;
    private String theme;

    private Client person(String name, Role role) {
        accounts.create(name + unlike, name, PASSWORD, role);
        return new Client(running.address).signedIn(name + unlike, PASSWORD);
    }

    private long idOf(String name) {
        return accounts.findBySignIn(name + unlike).orElseThrow().id();
    }

    @BeforeEach
    void aThemeOfIda() {
        ida = person("ida", Role.MAKER);
        tam = person("tam", Role.MAKER);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:#123456}".getBytes(StandardCharsets.UTF_8));
        theme = ida.bringIn("shared-" + unlike + ".zip", HostileThemesInTheApplicationTest.zip(files));
    }

    private String invitation() {
        assertThat(ida.post(theme + "/makers/invite").statusCode()).isEqualTo(302);
        return ida.page(theme + "/handover")
                .select("[data-copy*=/makers/theme/]")
                .attr("data-copy")
                .replaceFirst(".*/makers/", "/makers/");
    }

    private void share() {
        assertThat(tam.post(invitation()).headers().firstValue("Location").orElse(""))
                .endsWith(theme + "/survey");
    }

    @Test
    void anInvitationLetsOneMakerInOnce() {
        assertThat(tam.get(theme + "/survey").statusCode()).isEqualTo(404);
        String first = invitation();
        Client owner = person("owner", Role.OWNER);
        assertThat(owner.get(first).statusCode()).isEqualTo(403);
        assertThat(new Client(running.address).get(first).statusCode()).isEqualTo(302);
        assertThat(tam.page(first).text()).contains("ida asks you to build settings into this theme together");
        assertThat(tam.post(first).statusCode()).isEqualTo(302);
        assertThat(person("late", Role.MAKER).page(first).text()).contains("This invitation has been used");
        assertThat(tam.get(theme + "/settings").statusCode()).isEqualTo(200);
        assertThat(tam.page("/themes").select(".theme-list").text()).contains("with others");
        assertThat(ida.page(theme + "/handover").select("#makers-title + ul li").eachText())
                .containsExactly("ida you, whose theme it is", "tam Take off");
        String withdrawn = invitation();
        ida.post(theme + "/makers/withdraw");
        assertThat(person("more", Role.MAKER).page(withdrawn).text()).contains("was withdrawn");
        String over = invitation();
        database.sql("update theme_invitation set until = utc_timestamp() - interval 1 minute where theme_id = ?")
                .param(theme.replaceAll("\\D", ""))
                .update();
        assertThat(person("later", Role.MAKER).page(over).text()).contains("is over");
    }

    /** Each has a place of their own to try what owners get, which is always of the theme as it is now. */
    @Test
    void theOwnersSideIsTriedOnTheThemeAsItIsNow() {
        share();
        setting(ida, "color", "ink", "#204060");
        String place =
                ida.post(theme + "/try-out").headers().firstValue("Location").orElseThrow();
        assertThat(ida.page(place).select("[data-question]").eachAttr("data-key"))
                .containsExactly("ink");
        assertThat(ida.post(place + "/choose", "key", "ink", "v", "#123456").statusCode())
                .isEqualTo(200);
        setting(tam, "number", "often", "1");
        assertThat(ida.post(theme + "/try-out").headers().firstValue("Location"))
                .contains(place);
        assertThat(ida.page(place).select("[data-question]").eachAttr("data-key"))
                .contains("ink", "often");
        assertThat(ida.page(place).select("[data-key=ink] [data-any]").attr("value"))
                .as("what was chosen there stays")
                .isEqualTo("#123456");
        assertThat(ida.get(place.replace("/sites/", "/at/") + "/").statusCode())
                .as("nobody else sees it")
                .isEqualTo(404);
        assertThat(tam.post(theme + "/try-out").headers().firstValue("Location"))
                .as("another maker tries it elsewhere")
                .isPresent()
                .isNotEqualTo(Optional.of(place));
        assertThat(tam.get(place).statusCode()).isEqualTo(404);
    }

    private void setting(Client maker, String kind, String key, String value) {
        assertThat(maker.post(
                                theme + "/settings/new",
                                "base",
                                maker.base(theme),
                                "kind",
                                kind,
                                "key",
                                key,
                                "label",
                                key,
                                "v",
                                value,
                                "place",
                                "Page")
                        .statusCode())
                .isEqualTo(302);
    }

    @Test
    void bothChangeItAndTheHistoryTellsWho() {
        share();
        assertThat(tam.post(
                                theme + "/languages",
                                "base",
                                tam.base(theme),
                                "tag",
                                "de",
                                "text",
                                "Everywhere",
                                "word",
                                "Allerorten")
                        .statusCode())
                .isIn(200, 302);
        assertThat(ida.page(theme + "/history").text()).contains("Texts in German: 1", "tam");
        // On an older state: nothing of the other's is lost.
        assertThat(ida.post(theme + "/undo", "base", "1").statusCode()).isIn(404, 409, 422);
        assertThat(ida.post(theme + "/undo", "base", ida.base(theme)).statusCode())
                .isEqualTo(302);
        assertThat(tam.page(theme + "/languages?tag=de").select("[name=word]").eachAttr("value"))
                .doesNotContain("Allerorten");
    }

    @Test
    void whoseItIsRemovesItAndTakesOthersOffAndOthersLeave() {
        share();
        assertThat(tam.post(theme + "/sites", "name", "Of Tam " + unlike, "whose", "me")
                        .statusCode())
                .isEqualTo(302);
        assertThat(tam.post(theme + "/remove", "confirmed", "x").statusCode()).isEqualTo(422);
        assertThat(tam.post(theme + "/makers/" + idOf("ida") + "/take-off").statusCode())
                .isEqualTo(404);
        assertThat(ida.page(theme + "/handover").text()).doesNotContain("Of Tam");
        assertThat(tam.post(theme + "/makers/leave").statusCode()).isEqualTo(302);
        assertThat(tam.get(theme + "/survey").statusCode()).isEqualTo(404);
        // The site goes on, and is whose the theme is.
        assertThat(ida.page(theme + "/handover").text()).contains("Of Tam " + unlike);
        share();
        assertThat(ida.post(theme + "/makers/" + idOf("tam") + "/take-off").statusCode())
                .isEqualTo(302);
        assertThat(tam.get(theme + "/survey").statusCode()).isEqualTo(404);
        assertThat(ida.post(theme + "/makers/leave").statusCode()).isEqualTo(422);
    }

    /** A theme on which others work does not go with its maker. */
    @Test
    void aMakerGoesAndWhatIsSharedStays() {
        share();
        assertThat(ida.page("/account").text()).contains("1 theme on which others work stays with them");
        assertThat(ida.post("/account/remove", "password", PASSWORD)
                        .headers()
                        .firstValue("Location")
                        .orElse(""))
                .contains("removed");
        assertThat(tam.get(theme + "/survey").statusCode()).isEqualTo(200);
        assertThat(tam.page(theme + "/handover").select("#makers-title + ul li").eachText())
                .containsExactly("tam you, whose theme it is");
        Client next = person("next", Role.MAKER);
        assertThat(tam.post(theme + "/makers/invite").statusCode()).isEqualTo(302);
        String address = tam.page(theme + "/handover")
                .select("[data-copy*=/makers/theme/]")
                .attr("data-copy");
        next.post(address.replaceFirst(".*/makers/", "/makers/"));
        // Who goes with another's name in hand gives that one what they had, and what they shared.
        person("heir", Role.MAKER);
        assertThat(next.post("/account/remove", "password", PASSWORD, "handTo", "heir" + unlike)
                        .statusCode())
                .isEqualTo(302);
        assertThat(tam.page(theme + "/handover").select("#makers-title + ul li").eachText())
                .containsExactly("tam you, whose theme it is", "heir Take off");
    }
}
