package org.calmpalette.app.web;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.calmpalette.core.language.Language;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * The languages of the owner's side: those that ship, and one for each file in the folder that {@code calm.languages} names. A page speaks
 * the one that the reader chose, else the first of the browser's that there is (RFC 4647, section 3.4, lookup). The maker's side is in
 * English.
 */
@Component("languages")
public class Languages {
    private static final Logger LOG = LoggerFactory.getLogger(Languages.class);
    static final String COOKIE = "calm-language";
    private static final String ENDING = ".properties";
    /** Addresses of the owner's side; what else there is, is the maker's. */
    private static final Pattern OWNERS =
            Pattern.compile("/(sites|account|join|password|sign-in|sign-out|language)?(/.*)?");

    private final Map<String, Language> all;

    Languages(@Value("${calm.languages:}") String folder) throws IOException {
        all = read(folder.isBlank() ? null : Path.of(folder));
    }

    /** @param folder with further files, or null */
    private static Map<String, Language> read(Path folder) throws IOException {
        Set<String> packed = new TreeSet<>();
        for (Resource file : new PathMatchingResourcePatternResolver()
                .getResources("classpath*:" + Language.FOLDER + "*" + ENDING)) {
            packed.add(file.getFilename().replace(ENDING, ""));
        }
        Map<String, Language> all = new TreeMap<>();
        for (String tag : packed) {
            all.put(tag, tag.equals("en") ? Language.english() : Language.of(tag, Language.packed(tag)));
        }
        if (folder != null && Files.isDirectory(folder)) {
            try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*" + ENDING)) {
                for (Path file : files) {
                    add(all, file);
                }
            }
        }
        return all;
    }

    private static void add(Map<String, Language> all, Path file) {
        String tag = file.getFileName().toString().replace(ENDING, "");
        if (tag.equals("en") || !Locale.forLanguageTag(tag).toLanguageTag().equals(tag)) {
            LOG.warn("{}: no language is called so; name the file by its tag, such as fr.properties", file);
            return;
        }
        try (Reader in = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            // Over what ships of that language.
            Map<String, String> sentences = new TreeMap<>(Language.packed(tag));
            sentences.putAll(Language.read(in));
            Language language = Language.of(tag, sentences);
            language.faults().forEach(f -> LOG.warn("{}: {}", file, f));
            all.put(tag, language);
        } catch (IOException | IllegalArgumentException unread) {
            LOG.warn("{}: it cannot be read: {}", file, unread.getMessage());
        }
    }

    /** By their tags. */
    public List<Language> all() {
        return List.copyOf(all.values());
    }

    /** The one with a tag; empty if there is none. */
    public Optional<Language> tagged(String tag) {
        return Optional.ofNullable(all.get(tag));
    }

    /** What a page says in answer to a request. */
    public Language of(HttpServletRequest request) {
        String path = request.getDispatcherType() == DispatcherType.ERROR
                ? String.valueOf(request.getAttribute(RequestDispatcher.ERROR_REQUEST_URI))
                : request.getRequestURI();
        boolean makersAccount = path.startsWith("/account") && request.isUserInRole("MAKER");
        return OWNERS.matcher(path).matches() && !makersAccount ? wanted(request) : Language.english();
    }

    /** What somebody reads who asks, wherever that is: what was chosen, else what the browser says. */
    public Language wanted(HttpServletRequest request) {
        if (request.getCookies() != null) {
            for (Cookie cookie : request.getCookies()) {
                if (cookie.getName().equals(COOKIE) && all.containsKey(cookie.getValue())) {
                    return all.get(cookie.getValue());
                }
            }
        }
        String header = request.getHeader("Accept-Language");
        return header == null ? Language.english() : accepted(header);
    }

    private Language accepted(String header) {
        try {
            String tag = Locale.lookupTag(Locale.LanguageRange.parse(header), all.keySet());
            return tag == null ? Language.english() : all.get(tag);
        } catch (IllegalArgumentException nonsense) {
            return Language.english();
        }
    }

    // For templates

    /** Of the page that is made. */
    public String tag() {
        return Language.spoken().tag();
    }

    public String list(List<String> several) {
        return Language.spoken().list(several);
    }

    private static final String OF_SCRIPTS = "js.";

    /** What the scripts of a page say, as JSON that may stand in a page. */
    public String forScripts() {
        Language language = Language.spoken();
        Map<String, String> sentences = new TreeMap<>();
        Language.english().keys().stream()
                .filter(key -> key.startsWith(OF_SCRIPTS))
                .forEach(key -> sentences.put(key.substring(OF_SCRIPTS.length()), language.pattern(key)));
        return JsonMapper.shared()
                .writeValueAsString(Map.of("tag", language.tag(), "sentences", sentences))
                .replace("<", "\\u003c");
    }
}
