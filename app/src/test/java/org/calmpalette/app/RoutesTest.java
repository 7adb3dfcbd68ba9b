package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.junit.jupiter.api.Test;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/**
 * Every route, asked by nobody, by an owner, another owner, the maker and another maker, about a thing of the first owner and
 * the first maker. A route that is not in the table fails the test.
 */
class RoutesTest {
    /** Who may: everybody, who is signed in, any maker, the theme's maker, the site's owner, or only an address with a signature. */
    private enum May {
        ALL,
        SIGNED_IN,
        MAKERS,
        MAKER,
        OWNER,
        SIGNED_ADDRESS
    }

    private static final Map<String, May> TABLE = table(
            """
      ALL             GET /  GET /sign-in  GET /welcome  POST /welcome  GET /join/{token}  POST /join/{token}  GET /makers/join/{token}  POST /makers/join/{token}  GET /password/{token}  POST /password/{token}  POST /language
                      * /error
      SIGNED_IN       POST /join/{token}/as-me  GET /account  POST /account/name  POST /account/password  POST /account/remove  GET /sites
      MAKERS          GET /themes  POST /themes  POST /themes/starter  POST /makers/invite  POST /makers/withdraw  GET /makers/theme/{token}  POST /makers/theme/{token}
      MAKER           GET /themes/reading/{job}  GET /themes/{id}  GET /themes/{id}/survey  GET /themes/{id}/survey/progress  POST /themes/{id}/survey/again
                      GET /themes/{id}/survey/search  GET /themes/{id}/survey/card  POST /themes/{id}/lift  POST /themes/{id}/lift/try  GET /themes/{id}/history  POST /themes/{id}/history/earlier  POST /themes/{id}/history/take-back  POST /themes/{id}/undo
                      POST /themes/{id}/redo  POST /themes/{id}/points  POST /themes/{id}/back  POST /themes/{id}/remove  GET /themes/{id}/part
                      GET /themes/{id}/part/reads  GET /themes/{id}/part/change  GET /themes/{id}/part/preview  POST /themes/{id}/part
                      GET /themes/{id}/finding  GET /themes/{id}/finding/effect  POST /themes/{id}/finding/mend  POST /themes/{id}/sheets
                      POST /themes/{id}/finding/dismiss  POST /themes/{id}/finding/take-back  GET /themes/{id}/rule  GET /themes/{id}/rule/effect  POST /themes/{id}/rule/win
                      GET /themes/{id}/settings  GET /themes/{id}/settings/card  POST /themes/{id}/settings  POST /themes/{id}/settings/try  POST /themes/{id}/settings/behind  POST /themes/{id}/settings/each
                      POST /themes/{id}/settings/move  POST /themes/{id}/settings/rename  POST /themes/{id}/settings/duplicate  POST /themes/{id}/settings/remove  GET /themes/{id}/settings/area  GET /themes/{id}/settings/safe  GET /themes/{id}/settings/limits  POST /themes/{id}/settings/limit
                      GET /themes/{id}/settings/new  POST /themes/{id}/settings/new
                      POST /themes/{id}/settings/new/release  GET /themes/{id}/bands  POST /themes/{id}/bands  GET /themes/{id}/languages  POST /themes/{id}/languages  GET /themes/{id}/schemes  POST /themes/{id}/schemes
                      POST /themes/{id}/schemes/try  POST /themes/{id}/schemes/remove  GET /themes/{id}/formats  GET /themes/{id}/formats/{name}  POST /themes/{id}/formats
                      POST /themes/{id}/formats/read  GET /themes/{id}/handover  POST /themes/{id}/handover/word  GET /themes/{id}/handover.zip  GET /themes/{id}/pictures  GET /themes/{id}/pictures/try
                      POST /themes/{id}/pictures/subject  POST /themes/{id}/pictures/lay  GET /themes/{id}/pictures/lighter  GET /themes/{id}/pictures/lighter.img
                      POST /themes/{id}/pictures/lighten  GET /themes/{id}/pictures/all  GET /themes/{id}/pictures/all/progress  POST /themes/{id}/pictures/all  POST /themes/{id}/pictures/all/stop  POST /themes/{id}/pictures/all/keep  GET /themes/{id}/pictures/recolor  GET /themes/{id}/pictures/recolor/progress  POST /themes/{id}/pictures/recolor  POST /themes/{id}/pictures/recolor/stop  GET /themes/{id}/pictures/recolor/picture  POST /themes/{id}/pictures/recolor/keep  GET /themes/{id}/pictures/edit  GET /themes/{id}/pictures/edit/image  POST /themes/{id}/pictures/edit  GET /themes/{id}/parts  POST /themes/{id}/parts  GET /themes/{id}/parts/taking  GET /themes/{id}/parts/taking/progress  POST /themes/{id}/parts/taking/stop  GET /themes/{id}/side  GET /themes/{id}/side/effect  POST /themes/{id}/side  GET /themes/{id}/banner  GET /themes/{id}/banner/effect  POST /themes/{id}/banner  GET /themes/{id}/pictures/strip  GET /themes/{id}/pictures/strip/preview  GET /themes/{id}/pictures/strip/image  POST /themes/{id}/pictures/strip  POST /themes/{id}/pictures/replace  POST /themes/{id}/pictures/add  GET /themes/{id}/sections  GET /themes/{id}/sections/kit/{kit}  GET /themes/{id}/sections/{kit}.zip  POST /themes/{id}/sections/bring  POST /themes/{id}/sections/from  POST /themes/{id}/sections/put  POST /themes/{id}/sections/move  POST /themes/{id}/sections/place  POST /themes/{id}/sections/copy  POST /themes/{id}/sections/remove  POST /themes/{id}/sections/take  GET /themes/{id}/sections/own/{kit}  POST /themes/{id}/sections/own/{kit}  POST /themes/{id}/sections/own/{kit}/try  POST /themes/{id}/pictures/bring  POST /themes/{id}/pictures/copies  POST /themes/{id}/pictures/rename  POST /themes/{id}/pictures/remove  GET /themes/{id}/promises  GET /themes/{id}/promises/report  GET /themes/{id}/promises/progress  GET /themes/{id}/promises/fresh  POST /themes/{id}/promises/again  GET /themes/{id}/promises/card  GET /themes/{id}/promises/between  POST /themes/{id}/promises/between  GET /themes/{id}/promises/thresholds  POST /themes/{id}/promises/thresholds  GET /themes/{id}/promises/limits  POST /themes/{id}/promises/limits  GET /themes/{id}/promises/mends  POST /themes/{id}/promises/try  POST /themes/{id}/promises/mend  POST /themes/{id}/promises/waive  GET /themes/{id}/measures  GET /themes/{id}/measures/unvaried  GET /themes/{id}/grounds  POST /themes/{id}/measures   POST /themes/{id}/sites  POST /themes/{id}/sites/{site}/give
                      POST /themes/{id}/try-out  POST /themes/{id}/sites/{site}/withdraw  POST /themes/{id}/sites/{site}/owners/{owner}/take-off  POST /themes/{id}/sites/{site}/owners/{owner}/password
                      POST /themes/{id}/makers/invite  POST /themes/{id}/makers/withdraw  POST /themes/{id}/makers/leave  POST /themes/{id}/makers/{maker}/take-off  POST /themes/{id}/sites/{site}/update  POST /themes/{id}/sites/{site}/remove
      OWNER           GET /sites/{slug}  GET /sites/{slug}/people  POST /sites/{slug}/people/invite  POST /sites/{slug}/people/withdraw  POST /sites/{slug}/people/leave  GET /sites/{slug}/hand  POST /sites/{slug}/hand  POST /sites/{slug}/hand/withdraw  GET /sites/{slug}/pictures  POST /sites/{slug}/pictures  POST /sites/{slug}/pictures/{id}/remove  POST /sites/{slug}/pictures/{id}/subject  POST /sites/{slug}/pictures/{id}/put-back  POST /sites/{slug}/choose  POST /sites/{slug}/as-made  POST /sites/{slug}/scheme  POST /sites/{slug}/try  POST /sites/{slug}/behind  POST /sites/{slug}/judge
                      GET /sites/{slug}/places/{place}  GET /sites/{slug}/grounds  GET /sites/{slug}/area  GET /sites/{slug}/safe  GET /sites/{slug}/choices.json  POST /sites/{slug}/choices.json  POST /sites/{slug}/undo  POST /sites/{slug}/redo  GET /sites/{slug}/put-back  POST /sites/{slug}/put-back
                      POST /sites/{slug}/asides/{id}/take  POST /sites/{slug}/asides/{id}/let-go  POST /sites/{slug}/go-live  GET /sites/{slug}/review  GET /sites/{slug}/live.zip  GET /sites/{slug}/editions/{number}  GET /sites/{slug}/editions  POST /sites/{slug}/editions/{number}/take-back
      SIGNED_ADDRESS  GET /frame/{token}/**
      """);

    private final Running running = Running.get();

    /** Every address at which a maker asks something about a theme; a new route is among them by itself. */
    static List<String> questions() {
        return TABLE.entrySet().stream()
                .filter(e -> e.getValue() == May.MAKER && e.getKey().startsWith("GET /themes/{id}"))
                .map(e -> e.getKey().substring("GET /themes/{id}".length()))
                .toList();
    }

    private static Map<String, May> table(String text) {
        Map<String, May> all = new LinkedHashMap<>();
        May may = null;
        for (String word : text.strip().split("\\s{2,}|\\n")) {
            if (word.isBlank()) {
                continue;
            }
            if (word.strip().matches("[A-Z_]+")) {
                may = May.valueOf(word.strip());
            } else {
                all.put(word.strip(), may);
            }
        }
        return all;
    }

    private Set<String> routes() {
        Set<String> all = new TreeSet<>();
        running.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((mapping, method) -> {
                    if (method.getBeanType().getName().startsWith("org.calmpalette")) {
                        mapping.getPatternValues().forEach(p -> {
                            Set<String> methods = new LinkedHashSet<>();
                            mapping.getMethodsCondition().getMethods().forEach(m -> methods.add(m.name()));
                            (methods.isEmpty() ? Set.of("*") : methods).forEach(m -> all.add(m + " " + p));
                        });
                    }
                });
        return all;
    }

    private Client person(String name, Role role) {
        AccountService accounts = running.bean(AccountService.class);
        if (accounts.findBySignIn(name).isEmpty()) {
            accounts.create(name, name, "a long password", role);
        }
        return new Client(running.address).signedIn(name, "a long password");
    }

    @Test
    void everyRouteIsInTheTableAndNoOther() {
        assertThat(routes()).containsExactlyInAnyOrderElementsOf(TABLE.keySet());
    }

    @Test
    void nobodyReachesWhatIsNotTheirs() {
        Client maker = person("routes-maker", Role.MAKER);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:#123456}".getBytes(StandardCharsets.UTF_8));
        String theme = maker.bringIn("routes.zip", HostileThemesInTheApplicationTest.zip(files));
        Client owner = person("routes-owner", Role.OWNER);
        String name = "Routes " + System.nanoTime();
        String slug = name.toLowerCase().replace(' ', '-');
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", "routes-owner")
                        .statusCode())
                .isEqualTo(302);
        String site = maker.get(theme + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/remove.*", "$1");
        String ownerId = String.valueOf(running.bean(AccountService.class)
                .findBySignIn("routes-owner")
                .orElseThrow()
                .id());
        Map<String, Client> people = new LinkedHashMap<>();
        people.put("nobody", new Client(running.address));
        people.put("owner", owner);
        people.put("other owner", person("routes-owner-2", Role.OWNER));
        people.put("maker", maker);
        people.put("other maker", person("routes-maker-2", Role.MAKER));
        String head = maker.base(theme);
        List<String> wrong = new ArrayList<>();
        Map<String, String> tokens = new LinkedHashMap<>();
        people.forEach((who, client) -> tokens.put(who, client.token()));
        TABLE.forEach((route, may) -> people.forEach((who, client) -> {
            // What belongs to somebody is asked for by everybody else; who may do it is tried by all other tests.
            boolean allowed =
                    switch (may) {
                        case ALL -> true;
                        case SIGNED_IN -> !who.equals("nobody");
                        case MAKERS -> who.contains("maker");
                        case MAKER -> who.equals("maker");
                        case OWNER -> who.equals("owner");
                        case SIGNED_ADDRESS -> false;
                    };
            if (allowed) {
                return;
            }
            String path = route.substring(route.indexOf(' ') + 1)
                    .replace("/themes/{id}", theme)
                    .replace("{slug}", slug)
                    .replace("/asides/{id}", "/asides/999999")
                    .replace("/pictures/{id}", "/pictures/999999")
                    .replace("{site}", site)
                    .replace("{owner}", ownerId)
                    .replace("{maker}", ownerId)
                    .replace("{job}", "00000000-0000-0000-0000-000000000000")
                    .replace("{kit}", "lead")
                    .replace("{place}", "p")
                    .replace("{number}", "1")
                    .replace("/{name}", "/tokens.json")
                    .replace("{token}", "t1-zz-" + "a".repeat(43))
                    .replace("**", "index.html");
            boolean file = route.equals("POST /themes")
                    || route.endsWith("/read")
                    || route.endsWith("/pictures/replace")
                    || route.endsWith("/pictures/add")
                    || route.endsWith("/pictures/bring")
                    || route.endsWith("/sections/bring")
                    || route.equals("POST /sites/{slug}/pictures")
                    || route.equals("POST /sites/{slug}/choices.json");
            HttpResponse<String> answer = file
                    ? client.upload(path, "x.json", "{}".getBytes(StandardCharsets.UTF_8), "key", "k", "field", "v")
                    : route.startsWith("POST")
                            ? client.postAs(
                                    tokens.get(who),
                                    path,
                                    "base",
                                    head,
                                    "key",
                                    "k",
                                    "confirmed",
                                    name,
                                    "v",
                                    "#000000",
                                    "snapshot",
                                    head,
                                    "name",
                                    "n",
                                    "which",
                                    "1",
                                    "to",
                                    head,
                                    "aspect",
                                    "text",
                                    "what",
                                    "place",
                                    "scheme",
                                    "s",
                                    "reach",
                                    "rule",
                                    "file",
                                    "a.css",
                                    "start",
                                    "2",
                                    "way",
                                    "x",
                                    "page",
                                    "index.html",
                                    "at",
                                    "1",
                                    "width",
                                    "800",
                                    "note",
                                    "n",
                                    "text",
                                    "t",
                                    "kind",
                                    "number",
                                    "before",
                                    "",
                                    "owner",
                                    "",
                                    "whose",
                                    "me",
                                    "take",
                                    "k",
                                    "label",
                                    "L",
                                    "tag",
                                    "de",
                                    "word",
                                    "w")
                            : client.get(
                                    path
                                            + "?page=index.html&at=1&width=800&key=k&file=a.css&start=2&aspect=text&row=%23123456&way=x");
            boolean kept = may == May.SIGNED_ADDRESS
                    ? answer.statusCode() == 404
                    : who.equals("nobody")
                            ? answer.statusCode() == 302
                                            && answer.headers()
                                                    .firstValue("Location")
                                                    .orElse("")
                                                    .contains("/sign-in")
                                    || answer.statusCode() == 403
                            : answer.statusCode() == 404 || answer.statusCode() == 403;
            if (!kept) {
                wrong.add(who + ": " + route + " answered " + answer.statusCode() + " "
                        + answer.headers().firstValue("Location").orElse(""));
            }
        }));
        assertThat(wrong).isEmpty();
        assertThat(maker.base(theme)).as("nothing was changed").isEqualTo(head);
        assertThat(owner.get("/sites/" + slug + "/choices.json").body()).isEqualTo("{}");
        // A form without its token is nobody's.
        assertThat(owner.postAs("", "/sites/" + slug + "/choose", "key", "k", "v", "#000000")
                        .statusCode())
                .isEqualTo(403);
        // A site of one maker cannot be reached through another one's theme.
        assertThat(people.get("other maker")
                        .post("/themes/1/sites/" + site + "/give", "owner", "")
                        .statusCode())
                .isEqualTo(404);
    }
}
