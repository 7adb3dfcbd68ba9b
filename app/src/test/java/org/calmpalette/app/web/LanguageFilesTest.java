package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.language.Language;
import org.junit.jupiter.api.Test;

/** The files of sentences and those who say them know of each other, and of nothing else. */
class LanguageFilesTest {
    private static final Pattern IN_TEMPLATE = Pattern.compile("#\\{([a-z0-9.-]+)[(}]");
    private static final Pattern LITERAL = Pattern.compile("\"([a-z][a-z0-9.-]*)\"");
    /** Keys that are put together: what stands before what decides. */
    private static final List<String> PUT_TOGETHER = List.of(
            "label.",
            "part.",
            "hue.",
            "link.",
            "is.",
            "owner.part.",
            "owner.unit.",
            "owner.word.",
            "text.",
            "refused.missing.",
            "number.",
            "percentage.",
            "picture.any",
            "video.any");

    private static String all(Path folder, String ending) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(f -> f.toString().endsWith(ending))
                    .map(f -> {
                        try {
                            return Files.readString(f);
                        } catch (IOException e) {
                            throw new java.io.UncheckedIOException(e);
                        }
                    })
                    .collect(Collectors.joining("\n"));
        }
    }

    private static Set<String> found(Pattern pattern, String text) {
        Set<String> all = new TreeSet<>();
        Matcher m = pattern.matcher(text);
        while (m.find()) {
            all.add(m.group(1));
        }
        return all;
    }

    @Test
    void eachSentenceIsSaidSomewhereAndWhatIsSaidIsThere() throws IOException {
        Set<String> templates = found(IN_TEMPLATE, all(Path.of("src/main/resources/templates"), ".html"));
        assertThat(Language.english().keys()).containsAll(templates);
        Set<String> literals = found(LITERAL, all(Path.of("src/main/java"), ".java"));
        literals.addAll(found(LITERAL, all(Path.of("../core/src/main/java"), ".java")));
        String scripts = all(Path.of("src/main/resources/static/assets"), ".js");
        assertThat(Language.english().keys().stream()
                        .filter(key -> !templates.contains(key) && !literals.contains(key))
                        .filter(key -> PUT_TOGETHER.stream().noneMatch(key::startsWith))
                        .filter(key -> !key.startsWith("js.") || !scripts.contains("\"" + key.substring(3) + "\""))
                        .toList())
                .as("nobody says")
                .isEmpty();
    }

    /** What is written into a template stands for the sentence that takes its place, so that one who reads the file knows it. */
    @Test
    void pagesOfOwnersHoldNoWordsThatAreNotReplaced() throws IOException {
        Set<String> bare = new TreeSet<>();
        try (Stream<Path> files = Files.list(Path.of("src/main/resources/templates/sites"))) {
            for (Path file : files.toList()) {
                var page = org.jsoup.Jsoup.parse(Files.readString(file));
                page.getAllElements().forEach(e -> {
                    boolean replaced = e.attributes().asList().stream()
                            .anyMatch(a -> a.getKey().matches("th:(text|replace|insert|utext)"));
                    if (!replaced && e.ownText().matches(".*\\p{L}{2}.*")) {
                        bare.add(file.getFileName() + ": " + e.ownText());
                    }
                });
            }
        }
        assertThat(bare).isEmpty();
    }
}
