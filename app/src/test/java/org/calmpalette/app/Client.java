package org.calmpalette.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;

/** Somebody who asks the application without a browser. Follows no redirect by itself. */
final class Client {
    private static final Pattern TOKEN =
            Pattern.compile("name=\"_csrf\" value=\"([^\"]+)\"|X-CSRF-TOKEN&quot;: &quot;([^&]+)&quot;");
    final String address;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http = HttpClient.newBuilder()
            .cookieHandler(cookies)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();

    Client(String address) {
        this.address = address;
    }

    /** What they who have signed in carry, by address and name: signing in is made slow on purpose, and is itself tested elsewhere. */
    private static final Map<String, Map<String, String>> CARRIED = new ConcurrentHashMap<>();

    /** Somebody with the password of this run, as they are once they have signed in. */
    Client signedIn(String name) {
        return carrying("", name);
    }

    /** As they are in the windows of a browser: whoever signs out there is still signed in elsewhere. */
    Client signedInWindow(String name) {
        return carrying("window", name);
    }

    private Client carrying(String where, String name) {
        Map<String, String> carried = CARRIED.get(address + where + name);
        if (carried != null) {
            carried.forEach(this::carry);
            if (get("/account").statusCode() == 200) {
                return this;
            }
            cookies.getCookieStore().removeAll();
        }
        signedIn(name, Running.PASSWORD);
        CARRIED.put(address + where + name, cookies());
        return this;
    }

    Map<String, String> cookies() {
        return cookies.getCookieStore().getCookies().stream()
                .filter(c -> !c.getValue().isEmpty())
                .collect(Collectors.toMap(HttpCookie::getName, HttpCookie::getValue, (a, b) -> b));
    }

    private void carry(String name, String value) {
        HttpCookie cookie = new HttpCookie(name, value);
        cookie.setPath("/");
        cookie.setVersion(0);
        cookies.getCookieStore().add(URI.create(address), cookie);
    }

    Client signedIn(String name, String password) {
        HttpResponse<String> answer = post("/sign-in", "username", name, "password", password);
        if (answer.statusCode() != 302
                || answer.headers().firstValue("Location").orElse("").contains("sign-in")) {
            throw new IllegalStateException(name + " cannot sign in: " + answer.statusCode() + " "
                    + answer.headers().firstValue("Location").orElse(""));
        }
        return this;
    }

    boolean hasCookie(String name) {
        return cookies.getCookieStore().getCookies().stream()
                .anyMatch(c -> c.getName().equals(name));
    }

    HttpResponse<String> get(String path, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(uri(path)).timeout(Duration.ofMinutes(2));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return send(request.build());
    }

    /** A page or a part of one, as it is in the tree of a browser. */
    Document page(String path) {
        return Jsoup.parse(new String(get(path).body().getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8));
    }

    private URI uri(String path) {
        return URI.create(path.startsWith("http") ? path : address + path);
    }

    String token() {
        Matcher found = TOKEN.matcher(get("/account").body());
        if (!found.find()) {
            found = TOKEN.matcher(get("/sign-in").body());
            if (!found.find()) {
                throw new IllegalStateException("no token on " + address);
            }
        }
        return found.group(1) == null ? found.group(2) : found.group(1);
    }

    /** Sends a form as htmx does, so that what goes wrong comes as a status with words. */
    HttpResponse<String> post(String path, String... fields) {
        return postAs(token(), path, fields);
    }

    HttpResponse<String> postAs(String token, String path, String... fields) {
        StringBuilder body = new StringBuilder("_csrf=" + encoded(token));
        for (int i = 0; i < fields.length; i += 2) {
            body.append('&').append(encoded(fields[i])).append('=').append(encoded(fields[i + 1]));
        }
        return send(HttpRequest.newBuilder(uri(path))
                .timeout(Duration.ofMinutes(2))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(body.toString()))
                .build());
    }

    HttpResponse<String> upload(String path, String name, byte[] bytes, String... fields) {
        String edge = "edge-of-a-part";
        StringBuilder more = new StringBuilder();
        for (int i = 0; i < fields.length; i += 2) {
            more.append("--" + edge + "\r\nContent-Disposition: form-data; name=\"" + fields[i] + "\"\r\n\r\n"
                    + fields[i + 1] + "\r\n");
        }
        byte[] head = (more + "--" + edge + "\r\nContent-Disposition: form-data; name=\"_csrf\"\r\n\r\n" + token()
                        + "\r\n--" + edge + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8);
        byte[] tail = ("\r\n--" + edge + "--\r\n").getBytes(StandardCharsets.UTF_8);
        return send(HttpRequest.newBuilder(uri(path))
                .timeout(Duration.ofMinutes(2))
                .header("Content-Type", "multipart/form-data; boundary=" + edge)
                .POST(HttpRequest.BodyPublishers.concat(
                        HttpRequest.BodyPublishers.ofByteArray(head),
                        HttpRequest.BodyPublishers.ofByteArray(bytes),
                        HttpRequest.BodyPublishers.ofByteArray(tail)))
                .build());
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    HttpResponse<String> send(HttpRequest request) {
        try {
            return http.send(request, HttpResponse.BodyHandlers.ofString(StandardCharsets.ISO_8859_1));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Brings a theme in and waits until it is read. @return its address, such as {@code /themes/7} */
    String bringIn(String name, byte[] zip) {
        HttpResponse<String> answer = upload("/themes", name, zip);
        String job = answer.headers()
                .firstValue("Location")
                .orElseThrow(() -> new IllegalStateException(answer.statusCode() + answer.body()));
        String path = URI.create(job).getPath();
        for (long end = System.nanoTime() + Duration.ofMinutes(3).toNanos(); System.nanoTime() < end; pause()) {
            HttpResponse<String> now = get(path);
            if (now.statusCode() == 302) {
                return URI.create(now.headers().firstValue("Location").orElseThrow())
                        .getPath()
                        .replaceFirst("/survey.*", "");
            }
            if (now.body().contains("was not brought in")) {
                throw new IllegalStateException(now.body()
                        .replaceAll("(?s).*role=\"alert\">", "")
                        .replaceAll("<[^>]+>", " ")
                        .strip());
            }
        }
        throw new IllegalStateException(name + " is not read");
    }

    /** Waits for the survey of a theme. @return its page */
    String survey(String theme) {
        for (long end = System.nanoTime() + Duration.ofMinutes(3).toNanos(); System.nanoTime() < end; pause()) {
            HttpResponse<String> page = get(theme + "/survey?view=findings");
            if (page.statusCode() != 200) {
                throw new IllegalStateException(theme + ": " + page.statusCode() + page.body());
            }
            if (!page.body().contains("Looking the theme through")) {
                return page.body();
            }
        }
        throw new IllegalStateException(theme + " is not surveyed");
    }

    /** Id of the state that a theme's page shows, for forms. */
    String base(String theme) {
        Matcher m = Pattern.compile("name=\"base\" value=\"(\\d+)\"")
                .matcher(get(theme + "/settings").body());
        if (!m.find()) {
            throw new IllegalStateException("no base on " + theme);
        }
        return m.group(1);
    }

    private static void pause() {
        try {
            Thread.sleep(50);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
