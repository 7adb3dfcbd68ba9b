package org.calmpalette.core.language;

import com.ibm.icu.text.ListFormatter;
import com.ibm.icu.text.MessageFormat;
import com.ibm.icu.text.MessagePattern;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.text.DecimalFormatSymbols;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The sentences that people read, in one language. Each has a key and is a pattern of ICU's {@code MessageFormat}, whose plurals are those
 * of Unicode's CLDR (Unicode Technical Standard 35, part 3, language plural rules).
 *
 * <p>English is what is said where nobody asked for another language, and where another one lacks a sentence. Which language a thread
 * speaks is set around its work, as its {@link org.calmpalette.core.Budget} is: most of what is said comes out of the middle of a rule,
 * which has no business with who reads it.
 */
public final class Language {
    /** Where the files of sentences are among the resources: one for each language, in each module that says something. */
    public static final String FOLDER = "language/";

    private static final ThreadLocal<Language> SPOKEN = new ThreadLocal<>();

    /** Read when it is first needed. */
    private static final class English {
        static final Language INSTANCE = new Language(Locale.ENGLISH, packed("en"), false);
    }

    private final Locale locale;
    private final Map<String, String> patterns;
    private final Map<String, Made> formats = new ConcurrentHashMap<>();
    private final List<String> faults;

    private Language(Locale locale, Map<String, String> patterns, boolean checked) {
        this.locale = locale;
        this.patterns = new TreeMap<>(patterns);
        this.faults = checked ? unusable() : List.of();
    }

    public static Language english() {
        return English.INSTANCE;
    }

    /**
     * @param tag of BCP 47, such as {@code de}
     * @param patterns by key; those that cannot be used are told by {@link #faults} and said in English
     */
    public static Language of(String tag, Map<String, String> patterns) {
        return of(tag, patterns, true);
    }

    /** @param checked whether patterns are held against those of English */
    static Language of(String tag, Map<String, String> patterns, boolean checked) {
        return new Language(Locale.forLanguageTag(tag), patterns, checked);
    }

    /** The sentences of a language that ship with the application; none if it does not. */
    public static Map<String, String> packed(String tag) {
        Map<String, String> all = new TreeMap<>();
        try {
            for (URL file :
                    Collections.list(Language.class.getClassLoader().getResources(FOLDER + tag + ".properties"))) {
                try (Reader in = new InputStreamReader(file.openStream(), StandardCharsets.UTF_8)) {
                    all.putAll(read(in));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return all;
    }

    /** Sentences of a file, as {@link Properties} write them. */
    public static Map<String, String> read(Reader file) throws IOException {
        Properties read = new Properties();
        read.load(file);
        Map<String, String> all = new TreeMap<>();
        read.stringPropertyNames().forEach(key -> all.put(key, read.getProperty(key)));
        return all;
    }

    /** Takes out what cannot be said: patterns that cannot be read, that ask for what is not given, or that nobody asks for. */
    private List<String> unusable() {
        List<String> told = new ArrayList<>();
        for (String key : List.copyOf(patterns.keySet())) {
            String why = english().patterns.containsKey(key) ? unusable(key) : "no sentence has this key";
            if (!why.isEmpty()) {
                told.add(key + ": " + why);
                patterns.remove(key);
            }
        }
        return List.copyOf(told);
    }

    private String unusable(String key) {
        try {
            Set<String> given = new MessageFormat(english().patterns.get(key), Locale.ENGLISH).getArgumentNames();
            Set<String> asked = new MessageFormat(patterns.get(key), locale).getArgumentNames();
            return given.containsAll(asked) ? "" : "it asks for " + asked + ", and what is given is " + given;
        } catch (IllegalArgumentException bad) {
            return "it cannot be read: " + bad.getMessage();
        }
    }

    /** Sentences of it that cannot be used, each with the reason. */
    public List<String> faults() {
        return faults;
    }

    /** Of BCP 47. */
    public String tag() {
        return locale.toLanguageTag();
    }

    public Locale locale() {
        return locale;
    }

    /** What it is called by those who speak it. */
    public String name() {
        String name = locale.getDisplayName(locale);
        return name.substring(0, 1).toUpperCase(locale) + name.substring(1);
    }

    /** Keys of sentences that it has itself. */
    public Set<String> keys() {
        return Collections.unmodifiableSet(patterns.keySet());
    }

    /** As it is written in the file; in English where this language lacks it. */
    public String pattern(String key) {
        String pattern = patterns.get(key);
        if (pattern == null && this == english()) {
            throw new IllegalArgumentException("no sentence has the key " + key);
        }
        return pattern == null ? english().pattern(key) : pattern;
    }

    /**
     * A sentence with what it is about.
     *
     * @throws IllegalArgumentException if no sentence has the key
     */
    public String sentence(String key, Object... about) {
        if (!patterns.containsKey(key) && this != english()) {
            return english().sentence(key, about);
        }
        String pattern = pattern(key);
        if (pattern.indexOf('{') < 0) {
            return pattern;
        }
        Made made = formats.computeIfAbsent(key, k -> Made.of(pattern, locale));
        Object[] given = new Object[about.length];
        for (int i = 0; i < about.length; i++) {
            // Years, pixels and numbers of editions: groups of digits are for counts, which plurals write.
            boolean plain = about[i] instanceof Number && !made.counts.contains(i);
            given[i] = plain ? number(new BigDecimal(about[i].toString())) : about[i];
        }
        // It keeps what it works with in itself.
        synchronized (made.format) {
            return made.format.format(given);
        }
    }

    /** @param counts which of what it is given decides on a plural */
    private record Made(MessageFormat format, Set<Integer> counts) {
        static Made of(String pattern, Locale locale) {
            MessagePattern parts = new MessagePattern(pattern);
            Set<Integer> counts = new HashSet<>();
            for (int i = 0; i < parts.countParts(); i++) {
                MessagePattern.Part part = parts.getPart(i);
                if (part.getType() == MessagePattern.Part.Type.ARG_START
                        && part.getArgType() != MessagePattern.ArgType.NONE) {
                    counts.add(parts.getPart(i + 1).getValue());
                }
            }
            return new Made(new MessageFormat(pattern, locale), counts);
        }
    }

    /** A number with all its digits, as the language writes it. */
    public String number(BigDecimal n) {
        return n.toPlainString()
                .replace('.', DecimalFormatSymbols.getInstance(locale).getDecimalSeparator());
    }

    /** Several things in a row, such as “a, b and c”. */
    public String list(List<String> all) {
        return ListFormatter.getInstance(locale).format(all);
    }

    /** A label that themes get from us, in this language; any other text as it is. */
    public String label(String text) {
        String key = "label." + LABEL.matcher(text.toLowerCase(Locale.ROOT)).replaceAll("-");
        String cut = key.substring(0, Math.min(LONGEST_LABEL_KEY, key.length())).replaceAll("-+$", "");
        return text.equals(english().patterns.get(cut)) ? pattern(cut) : text;
    }

    private static final Pattern LABEL = Pattern.compile("[^a-z0-9]+");
    /** Characters of a key of a label, with what it begins with. */
    private static final int LONGEST_LABEL_KEY = 78;

    // What a thread speaks

    /** What this thread speaks. */
    public static Language spoken() {
        Language language = SPOKEN.get();
        return language == null ? english() : language;
    }

    /** A sentence in the language that this thread speaks. */
    public static String say(String key, Object... about) {
        return spoken().sentence(key, about);
    }

    /** Starts a sentence that was kept, and parts what it is about; no text that people write has these. */
    private static final char KEPT = '\u001e';

    private static final char PART = '\u001f';

    /** A sentence as it may be kept, to be told later in whatever language somebody reads; see {@link #told}. */
    public static String kept(String key, Object... about) {
        StringBuilder kept = new StringBuilder().append(KEPT).append(key);
        for (Object o : about) {
            kept.append(PART).append(o instanceof Number ? "#" : "=").append(o);
        }
        return kept.toString();
    }

    /** What was kept, in the language that this thread speaks; any other text as it is. */
    public static String told(String kept) {
        if (kept.isEmpty() || kept.charAt(0) != KEPT) {
            return kept;
        }
        String[] parts = kept.substring(1).split(String.valueOf(PART), -1);
        Object[] about = Stream.of(parts)
                .skip(1)
                .map(p -> p.startsWith("#") ? (Object) new BigDecimal(p.substring(1)) : p.substring(1))
                .toArray();
        // A sentence that an older version of us said may be gone.
        return english().patterns.containsKey(parts[0])
                ? say(parts[0], about)
                : Stream.of(about).map(String::valueOf).collect(Collectors.joining(", "));
    }

    /** A time in which a thread speaks a language. */
    public interface Turn extends AutoCloseable {
        /** From here on the thread speaks what it spoke before. */
        @Override
        void close();
    }

    /** Speaks a language until the turn is closed, on the same thread. */
    public static Turn speak(Language language) {
        Language before = SPOKEN.get();
        SPOKEN.set(language);
        return () -> {
            if (before == null) {
                SPOKEN.remove();
            } else {
                SPOKEN.set(before);
            }
        };
    }

    /** Does some work in a language. */
    public static <T> T in(Language language, Supplier<T> work) {
        try (Turn turn = speak(language)) {
            return work.get();
        }
    }
}
