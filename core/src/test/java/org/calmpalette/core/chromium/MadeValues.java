package org.calmpalette.core.chromium;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Declarations made at random from value definition syntaxes (CSS Values and Units 4, section 2): components side by side, all of several
 * in any order ({@code &&}), one or more of several ({@code ||}), one of several ({@code |}), brackets, and multipliers. Half of them are
 * then spoilt by a component that is left out, put twice, exchanged or taken from another value.
 */
final class MadeValues {
    private static final Pattern TOKEN = Pattern.compile(
            "<[\\w-]+>|&&|\\|\\|?|\\[|\\]|[?*+]|#?\\{\\d+(?:,\\d+)?\\}|#(?![\\da-fA-F]{3})|[\\w-]+\\((?=\\s)|(?:calc|max|min|clamp|url)\\((?:[^()]|\\([^()]*\\))*\\)|\"[^\"]*\"|[^\\s|?*+\\[\\]{}#,]+|#[\\da-fA-F]+|,");

    private final Map<String, List<String>> syntaxes = new LinkedHashMap<>();
    private final Map<String, Supplier<List<String>>> read = new HashMap<>();
    private final Random random;
    private boolean spoiling;

    MadeValues(String resource, Random random) {
        this.random = random;
        for (String line : new String(OutsideSheets.resource(resource), StandardCharsets.UTF_8)
                .lines()
                .filter(l -> !l.startsWith("#"))
                .toList()) {
            List<String> tokens = new ArrayList<>();
            Matcher m = TOKEN.matcher(line.substring(line.indexOf(" = ") + 3));
            while (m.find()) {
                tokens.add(m.group());
            }
            syntaxes.put(line.substring(0, line.indexOf(" = ")), tokens);
        }
    }

    /** So many declarations, each as {@code property: value}, none twice. */
    List<String> declarations(int count) {
        List<String> properties =
                syntaxes.keySet().stream().filter(k -> !k.startsWith("<")).toList();
        Set<String> all = new LinkedHashSet<>();
        while (all.size() < count) {
            String property = properties.get(random.nextInt(properties.size()));
            spoiling = random.nextBoolean();
            List<String> value = made(property);
            if (spoiling && random.nextBoolean()) {
                spoil(value, made(properties.get(random.nextInt(properties.size()))));
            }
            String declaration = property + ": " + String.join(" ", value);
            if (!value.isEmpty() && declaration.length() < 300) {
                all.add(declaration);
            }
        }
        return List.copyOf(all);
    }

    private void spoil(List<String> value, List<String> other) {
        if (value.isEmpty() || other.isEmpty()) {
            return;
        }
        int at = random.nextInt(value.size());
        switch (random.nextInt(4)) {
            case 0 -> value.remove(at);
            case 1 -> value.add(at, value.get(at));
            case 2 -> Collections.swap(value, at, random.nextInt(value.size()));
            default -> value.set(at, other.get(random.nextInt(other.size())));
        }
    }

    private List<String> made(String name) {
        if (!syntaxes.containsKey(name)) {
            throw new IllegalArgumentException("there is no syntax of " + name);
        }
        // A syntax may name itself, so that it is read when it is asked for.
        if (!read.containsKey(name)) {
            read.put(name, new Reading(syntaxes.get(name)).alternatives());
        }
        return new ArrayList<>(read.get(name).get());
    }

    /** One walk over a syntax, to what makes a value of it each time that it is asked. */
    private final class Reading {
        private final List<String> tokens;
        private int at;

        Reading(List<String> tokens) {
            this.tokens = tokens;
        }

        private boolean is(String token) {
            return at < tokens.size() && tokens.get(at).equals(token);
        }

        Supplier<List<String>> alternatives() {
            List<Supplier<List<String>>> all = between("|", this::some);
            return () -> all.get(random.nextInt(all.size())).get();
        }

        private Supplier<List<String>> some() {
            List<Supplier<List<String>>> all = between("||", this::every);
            return () -> joined(shuffled(all).subList(0, 1 + random.nextInt(all.size())));
        }

        private Supplier<List<String>> every() {
            List<Supplier<List<String>>> all = between("&&", this::sequence);
            return () -> joined(shuffled(all));
        }

        private List<Supplier<List<String>>> between(String sign, Supplier<Supplier<List<String>>> part) {
            List<Supplier<List<String>>> all = new ArrayList<>(List.of(part.get()));
            while (is(sign)) {
                at++;
                all.add(part.get());
            }
            return all;
        }

        private <T> List<T> shuffled(List<T> parts) {
            List<T> all = new ArrayList<>(parts);
            Collections.shuffle(all, random);
            return all;
        }

        private Supplier<List<String>> sequence() {
            List<Supplier<List<String>>> all = new ArrayList<>();
            while (at < tokens.size() && !List.of("|", "||", "&&", "]", ")").contains(tokens.get(at))) {
                all.add(multiplied());
            }
            return () -> joined(all);
        }

        private Supplier<List<String>> multiplied() {
            Supplier<List<String>> once = component();
            if (at >= tokens.size() || !tokens.get(at).matches("[?*+#]|#?\\{.*")) {
                return once;
            }
            String multiplier = tokens.get(at++);
            boolean counted = multiplier.endsWith("}");
            String[] bounds = multiplier.replaceAll("^#?\\{|\\}$", "").split(",");
            int least = counted ? Integer.parseInt(bounds[0]) : multiplier.matches("[?*]") ? 0 : 1;
            int most = counted ? Integer.parseInt(bounds[bounds.length - 1]) : multiplier.equals("?") ? 1 : 3;
            return () -> {
                List<String> all = new ArrayList<>();
                int times = least + random.nextInt(most - least + 1);
                for (int i = 0; i < times; i++) {
                    if (i > 0 && multiplier.startsWith("#")) {
                        all.add(",");
                    }
                    all.addAll(once.get());
                }
                return all;
            };
        }

        private Supplier<List<String>> component() {
            String token = tokens.get(at++);
            if (token.equals("[")) {
                Supplier<List<String>> inside = alternatives();
                at++;
                return inside;
            }
            if (token.startsWith("<")) {
                return () -> made(token);
            }
            if (!token.endsWith("(")) {
                return () -> List.of(token);
            }
            Supplier<List<String>> inside = alternatives();
            at++;
            return () -> {
                List<String> words = new ArrayList<>(inside.get());
                if (spoiling && random.nextInt(3) == 0) {
                    spoil(words, words);
                }
                return List.of(token + String.join(" ", words) + ")");
            };
        }

        private static List<String> joined(List<Supplier<List<String>>> parts) {
            List<String> all = new ArrayList<>();
            parts.forEach(p -> all.addAll(p.get()));
            return all;
        }
    }
}
