package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import org.calmpalette.core.BadInputException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.core.util.Separators;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads and writes {@code palette.json}. What can be read is read; what cannot is reported with its place, and stays in
 * the file as it is, as do keys that a later version or another tool wrote.
 */
public final class PaletteJson {
    public static final String FORMAT = "calm-palette/1";

    private static final Set<String> SETTING_KEYS = Set.of(
            "key",
            "label",
            "help",
            "kind",
            "place",
            "default",
            "bands",
            "allowed",
            "perBand",
            "shownWhen",
            "asked",
            "former",
            "triple",
            "drawings");

    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .defaultPrettyPrinter(new DefaultPrettyPrinter(
                            Separators.createDefaultInstance().withObjectNameValueSpacing(Separators.Spacing.AFTER))
                    .withObjectIndenter(new DefaultIndenter("  ", "\n"))
                    .withArrayIndenter(new DefaultIndenter("  ", "\n")))
            .build();

    private final byte[] bytes;

    private final JsonEntry root;

    private final List<Palette.Fault> faults = new ArrayList<>();

    private final Set<String> unknown = new LinkedHashSet<>();

    private JsonLines lines;

    private PaletteJson(byte[] bytes) {
        this.bytes = bytes;
        this.root = new JsonEntry(Value.of(tree(bytes)), "");
    }

    /**
     * Reads the file. Settings that cannot be used are not among the palette's; each has a fault instead.
     *
     * @param name the theme's name where the file gives none
     * @throws BadInputException if the file is no JSON object at all
     */
    public static Palette read(byte[] bytes, String name) {
        return new PaletteJson(bytes).palette(name);
    }

    private static final int LONGEST_NAME = 120;

    /** Unknown keys that are told one by one. */
    private static final int MOST_UNKNOWN = 50;

    private Palette palette(String name) {
        root.value("format");
        Bands bands = bands();
        String own = attempt(() -> root.optionalText("name")).flatMap(n -> n).orElse(name);
        if (own.isBlank() || own.length() > LONGEST_NAME) {
            fault(
                    "name",
                    own.isBlank() ? "the name is empty" : "the name is longer than " + LONGEST_NAME + " characters",
                    "Write a shorter one; until then it is “" + name + "”.");
            own = name;
        }
        List<Place> places = new ArrayList<>();
        each("places", e -> {
            Place place = new Place(e.text("key"), e.text("label"));
            if (places.stream().anyMatch(p -> p.key().equals(place.key()))) {
                throw JsonEntry.bad(
                        e.at("key"),
                        "the place “" + place.key() + "” is there twice",
                        "Give one of the two another key.");
            }
            places.add(place);
        });
        Map<String, Setting> settings = new LinkedHashMap<>();
        Map<String, String> at = new HashMap<>();
        each("settings", e -> {
            Setting s = setting(e, bands);
            if (settings.containsKey(s.key())) {
                throw JsonEntry.bad(
                        e.at("key"), "the key “" + s.key() + "” is there twice", "Give one of the two another key.");
            }
            if (places.stream().noneMatch(p -> p.key().equals(s.place()))) {
                throw JsonEntry.bad(
                        e.at("place"),
                        "there is no place “" + s.place() + "”",
                        "Name one that stands under places, or add it there.");
            }
            settings.put(s.key(), s);
            at.put(s.key(), e.place());
        });
        dropBrokenReferences(settings, at);
        List<Scheme> schemes = new ArrayList<>();
        each("schemes", e -> {
            Map<String, Chosen> values = new LinkedHashMap<>();
            e.entry("values").parts().parts().forEach((k, v) -> values.put(k, Chosen.of(v.json())));
            schemes.add(new Scheme(e.text("key"), e.text("label"), values));
        });
        Map<String, Subject> subjects = new LinkedHashMap<>();
        Map<String, String> moved = new LinkedHashMap<>();
        each("pictures", e -> {
            String path = e.text("path");
            for (String former : e.texts("former")) {
                if (moved.putIfAbsent(former, path) != null) {
                    throw JsonEntry.bad(
                            e.at("former"),
                            "“" + former + "” is the former path of two pictures",
                            "Keep one of the two.");
                }
            }
            // An entry may tell other things of a picture one day.
            if (!e.has("subject")) {
                return;
            }
            Subject subject = Subject.read(e);
            if (subjects.putIfAbsent(subject.path(), subject) != null) {
                throw JsonEntry.bad(
                        e.at("path"), "the picture “" + subject.path() + "” is there twice", "Keep one of the two.");
            }
        });
        Map<String, SheetOwner> sheets = new LinkedHashMap<>();
        each("stylesheets", e -> {
            String path = e.text("path");
            String whose = e.text("whose");
            SheetOwner owner = SheetOwner.of(whose)
                    .orElseThrow(() -> JsonEntry.bad(
                            e.at("whose"), "nobody is called “" + whose + "”", "Write maker or library."));
            if (sheets.putIfAbsent(path, owner) != null) {
                throw JsonEntry.bad(
                        e.at("path"), "the stylesheet “" + path + "” is there twice", "Keep one of the two.");
            }
        });
        Map<String, String> waived = new LinkedHashMap<>();
        List<Between> between = new ArrayList<>();
        Thresholds[] thresholds = {Thresholds.USUAL};
        each("promises", e -> {
            if (e.has("between")) {
                between.add(between(e, settings));
            } else if (e.has("threshold")) {
                thresholds[0] = threshold(e, thresholds[0]);
            } else {
                waived.put(
                        e.text("promise"),
                        e.has("waived") ? e.optionalText("waived").orElse("") : "");
            }
        });
        Translations translations = translations();
        unknownKeys();
        return new Palette(
                own,
                bands,
                places,
                List.copyOf(settings.values()),
                schemes,
                List.copyOf(subjects.values()),
                moved,
                sheets,
                new PromiseTerms(waived, between, thresholds[0]),
                translations,
                faults);
    }

    private Translations translations() {
        Map<String, Map<String, String>> all = new LinkedHashMap<>();
        attempt("translations", () -> {
            JsonEntry each = root.entry("translations");
            for (String tag : each.keys()) {
                each.value(tag);
                attempt(each.at(tag), () -> {
                    Translations.checkTag(tag);
                    Map<String, String> texts = new LinkedHashMap<>();
                    JsonEntry words = each.entry(tag);
                    for (String text : words.keys()) {
                        attempt(words.at(text), () -> {
                            String word = words.text(text);
                            new Translations(Map.of(tag, Map.of(text, word)));
                            texts.put(text, word);
                        });
                    }
                    all.put(tag, texts);
                });
            }
        });
        try {
            return new Translations(all);
        } catch (BadInputException many) {
            fault("translations", many.getMessage(), many.mend());
            return Translations.NONE;
        }
    }

    /** Whether a word stands there and not the usual one. */
    private static boolean isSaid(JsonEntry e, String key, String word, String usual) {
        String said = e.optionalText(key).orElse(usual);
        if (!said.equals(usual) && !said.equals(word)) {
            throw JsonEntry.bad(
                    e.at(key), "“" + said + "” means nothing there", "Write " + word + " or " + usual + ".");
        }
        return said.equals(word);
    }

    private static Thresholds threshold(JsonEntry e, Thresholds before) {
        String of = e.text("threshold");
        try {
            return switch (of) {
                case "readable" ->
                    before.withTexts(
                            Thresholds.Level.valueOf(e.optionalText("level")
                                    .orElse(Thresholds.USUAL.level().name())),
                            isSaid(e, "owners", "keep", "told"),
                            isSaid(e, "area", "whatever", "now"));
                case "light" ->
                    before.withPictures(e.whole("most")
                            .orElseThrow(() ->
                                    JsonEntry.bad(e.at("most"), "it says no weight", "Write \"most\": 800, in kB.")));
                case "covered" ->
                    before.withSeam(e.number("most")
                            .orElseThrow(() -> JsonEntry.bad(
                                    e.at("most"), "it says no distance", "Write \"most\": 5, in OKLab times 100.")));
                case "sharp" ->
                    before.withLarger(e.number("most")
                            .orElseThrow(() -> JsonEntry.bad(
                                    e.at("most"), "it says not how many times", "Write \"most\": 1.25.")));
                default ->
                    throw JsonEntry.bad(
                            e.at("threshold"),
                            "“" + of + "” has no threshold",
                            "Write readable with a level, or light, covered or sharp with a most.");
            };
        } catch (IllegalArgumentException noLevel) {
            throw JsonEntry.bad(e.at("level"), "“" + e.text("level") + "” is no level of WCAG", "Write AA or AAA.");
        } catch (BadInputException wrong) {
            throw e.has("most") && !of.equals("readable")
                    ? JsonEntry.bad(e.at("most"), wrong.getMessage(), wrong.mend())
                    : wrong;
        }
    }

    private static Between between(JsonEntry e, Map<String, Setting> settings) {
        List<String> keys = e.texts("between");
        for (String key : keys) {
            if (!settings.containsKey(key) || !(settings.get(key).kind() instanceof ColorKind)) {
                throw JsonEntry.bad(
                        e.at("between"), "no colour setting is called “" + key + "”", "Name two that are there.");
            }
        }
        if (keys.size() != 2) {
            throw JsonEntry.bad(
                    e.at("between"), "a promise is about two settings", "Write \"between\": [\"ink\", \"paper\"].");
        }
        try {
            BigDecimal distance = e.number("distance").orElse(null);
            return new Between(
                    keys.get(0),
                    keys.get(1),
                    e.number("contrast").orElse(distance == null ? new BigDecimal("4.5") : null),
                    distance);
        } catch (JsonEntry.PlacedException placed) {
            throw placed;
        } catch (BadInputException wrong) {
            throw JsonEntry.bad(
                    e.at(wrong.getMessage().contains("distance") ? "distance" : "contrast"),
                    wrong.getMessage(),
                    wrong.mend());
        }
    }

    private Bands bands() {
        List<Band> list = new ArrayList<>();
        each(
                "bands",
                e -> list.add(
                        new Band(e.text("key"), e.text("label"), e.whole("to").orElse(null))));
        try {
            // With one of them missing the others would mean something else.
            return list.isEmpty() || !faults.isEmpty() ? Bands.USUAL : new Bands(list);
        } catch (BadInputException e) {
            fault("bands", e.getMessage(), e.mend() + " Until then the usual three bands are taken.");
            return Bands.USUAL;
        }
    }

    private static Setting setting(JsonEntry e, Bands bands) {
        String name = e.text("kind");
        if (!Kinds.names().contains(name)) {
            throw JsonEntry.bad(
                    e.at("kind"),
                    "“" + name + "” is no kind of setting that is known",
                    "Write one of " + String.join(", ", Kinds.names()) + ".");
        }
        Kind kind = Kinds.read(name, e.entry("allowed"));
        Given given = given(e, "default", kind);
        Map<String, Given> each = new LinkedHashMap<>();
        JsonEntry b = e.entry("bands");
        for (String band : b.keys()) {
            if (bands.band(band).isEmpty() || bands.widest().key().equals(band)) {
                throw JsonEntry.bad(
                        b.at(band),
                        bands.band(band).isEmpty()
                                ? "there is no band “" + band + "”"
                                : "the widest band has the setting's default",
                        "Name one of "
                                + String.join(
                                        ", ",
                                        bands.list().stream()
                                                .map(Band::key)
                                                .filter(k ->
                                                        !k.equals(bands.widest().key()))
                                                .toList())
                                + ".");
            }
            each.put(band, given(b, band, kind));
        }
        Setting.Shown shown = null;
        if (e.has("shownWhen")) {
            JsonEntry when = e.entry("shownWhen");
            shown = new Setting.Shown(when.text("key"), when.list("is"));
        }
        if (e.has("asked") && !e.flag("asked")) {
            shown = Setting.Shown.NEVER;
        }
        Setting s = new Setting(
                e.text("key"),
                e.text("label"),
                e.optionalText("help").orElse(""),
                e.text("place"),
                kind,
                given,
                each,
                e.flag("perBand"),
                shown,
                e.flag("triple"),
                drawings(e),
                e.texts("former"));
        // What depends on nothing else is judged here, where the place is known.
        checkFixed(s.given(), s, e.at("default"));
        s.bands().forEach((band, g) -> checkFixed(g, s, e.at("bands") + "." + band));
        return s;
    }

    private static Given given(JsonEntry e, String key, Kind kind) {
        Value v = e.value(key).orElseThrow(() -> JsonEntry.bad(e.at(key), "it is missing", "Write \"" + key + "\": …"));
        if (Given.isFollowing(v)) {
            return Given.follows(e.entry(key));
        }
        try {
            return new Given.Fixed(kind.normal(v));
        } catch (BadInputException wrong) {
            throw JsonEntry.bad(e.at(key), wrong.getMessage(), wrong.mend());
        }
    }

    private static void checkFixed(Given given, Setting s, String at) {
        if (given instanceof Given.Fixed f) {
            s.kind().refusal(f.value(), Kind.Around.NOTHING).ifPresent(why -> {
                throw JsonEntry.bad(
                        at,
                        s.kind().words(f.value()) + " is not among what an owner may choose. " + why.words(),
                        "Widen allowed, or take another default.");
            });
        }
    }

    /** Takes out settings that follow what is not there, or each other in a circle, until what is left holds. */
    private void dropBrokenReferences(Map<String, Setting> settings, Map<String, String> at) {
        for (boolean again = true; again; ) {
            again = false;
            for (Setting s : List.copyOf(settings.values())) {
                List<String> chain = Palette.circle(s, settings);
                String what = chain.isEmpty()
                        ? missing(s, settings)
                        : "settings follow each other in a circle: " + String.join(" → ", chain);
                if (!what.isEmpty()) {
                    fault(
                            at.get(s.key()) + ".default",
                            what,
                            chain.isEmpty()
                                    ? "Name the key of another setting of the same kind."
                                    : "Give one of them a value of its own.");
                    settings.remove(s.key());
                    again = true;
                }
            }
        }
    }

    private static String missing(Setting s, Map<String, Setting> settings) {
        for (Given.Follows f : s.following()) {
            Setting other = settings.get(f.key());
            if (other == null || !other.kind().name().equals(s.kind().name())) {
                return "it follows “" + f.key() + "”"
                        + (other == null
                                ? ", and there is no such setting"
                                : ", which is a " + other.kind().label());
            }
            Optional<String> second = f.how().alsoReads();
            boolean lost = second.isPresent()
                    && (!settings.containsKey(second.get())
                            || !settings.get(second.get())
                                    .kind()
                                    .name()
                                    .equals(s.kind().name()));
            if (lost) {
                return "it is mixed with “" + second.get() + "”, which is neither a colour nor a colour setting";
            }
        }
        boolean lost = s.shown() != null
                && !s.shown().isNever()
                && (!settings.containsKey(s.shown().key()) || s.shown().key().equals(s.key()));
        return lost ? "it is shown depending on “" + s.shown().key() + "”, and there is no such other setting" : "";
    }

    private void unknownKeys() {
        unknown.addAll(root.unknown());
        int told = 0;
        for (String at : unknown) {
            if (++told > MOST_UNKNOWN) {
                fault(
                        at,
                        "it and " + (unknown.size() - MOST_UNKNOWN)
                                + " more keys mean nothing here; they are kept, and do nothing",
                        "Take them out, or leave them.");
                return;
            }
            String key = at.substring(at.lastIndexOf('.') + 1);
            // Tools may keep things of their own under a name with a dollar sign, as JSON Schema does.
            if (!key.startsWith("$")) {
                String meant = meant(key, SETTING_KEYS);
                fault(
                        at,
                        "“" + key + "” means nothing here; it is kept, and does nothing",
                        meant.startsWith("Did") ? meant : "Take it out, or leave it.");
            }
        }
    }

    private void each(String list, Consumer<JsonEntry> visit) {
        List<JsonEntry> entries;
        try {
            entries = root.has(list) ? new ArrayList<>() : List.of();
            List<Value> items = root.list(list);
            for (int i = 0; i < items.size(); i++) {
                String at = list + "[" + i + "]";
                Value item = items.get(i);
                attempt(at, () -> entries.add(new JsonEntry(item, at)));
            }
        } catch (JsonEntry.PlacedException e) {
            fault(e.at(), e.what(), e.mend());
            return;
        }
        for (JsonEntry e : entries) {
            int before = faults.size();
            attempt(e.place(), () -> visit.accept(e));
            // An entry that was given up half way has keys that nobody came to ask for.
            if (faults.size() == before) {
                unknown.addAll(e.unknown());
            }
        }
    }

    private void attempt(String at, Runnable read) {
        try {
            read.run();
        } catch (JsonEntry.PlacedException e) {
            fault(e.at(), e.what(), e.mend());
        } catch (BadInputException e) {
            fault(at, e.getMessage(), e.mend());
        }
    }

    private <T> Optional<T> attempt(java.util.function.Supplier<T> read) {
        try {
            return Optional.of(read.get());
        } catch (JsonEntry.PlacedException e) {
            fault(e.at(), e.what(), e.mend());
            return Optional.empty();
        }
    }

    private void fault(String at, String what, String mend) {
        if (lines == null) {
            lines = new JsonLines(bytes);
        }
        faults.add(new Palette.Fault(at, lines.line(at), what, mend));
    }

    /** The line on which a setting starts in the file. */
    public static int line(byte[] bytes, String key) {
        int index = 0;
        for (JsonNode n : tree(bytes).path("settings")) {
            if (n.path("key").asString("").equals(key)) {
                return new JsonLines(bytes).line("settings[" + index + "]");
            }
            index++;
        }
        return 1;
    }

    /** The file as it is. @throws BadInputException if it is not JSON or holds no object */
    static JsonNode tree(byte[] bytes) {
        JsonNode root;
        try {
            root = MAPPER.readTree(bytes);
        } catch (JacksonException e) {
            int line = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getLineNr());
            throw new BadInputException(
                    Palette.FILE + ", line " + line + ": this is not JSON. " + e.getOriginalMessage(),
                    "Mend that line, or take the file out of the theme to start without settings.");
        }
        if (!root.isObject()) {
            throw new BadInputException(Palette.FILE + ", the file: it holds no object", "Let it start with {.");
        }
        return root;
    }

    /**
     * Writes a palette into the text of the file as it was.
     *
     * @param before the file's bytes, or null where there is none yet
     */
    public static byte[] write(Palette palette, byte[] before) {
        return PaletteWriter.write(palette, before);
    }

    /** The bytes of the file, as it is always written. */
    static byte[] written(JsonNode root) {
        return (MAPPER.writeValueAsString(root) + "\n").getBytes(StandardCharsets.UTF_8);
    }

    /** JSON in the way in which the file is written. */
    public static String text(JsonNode node) {
        return MAPPER.writeValueAsString(node) + "\n";
    }

    /** One setting as the file holds it. */
    public static Value.Parts write(Setting setting) {
        ObjectNode node = MAPPER.createObjectNode();
        PaletteWriter.write(setting, node);
        return (Value.Parts) Value.of(node);
    }

    /** One setting as the file holds it. @throws BadInputException with its place, if it cannot be used */
    public static Setting readSetting(Value value, Bands bands) {
        return setting(new JsonEntry(value, ""), bands);
    }

    /** What a section's file holds beside its settings. */
    private static final Set<String> SECTION_KEYS = Set.of("label", "about", "rem", "apart", "settings");

    /**
     * Keys of a section's file that mean nothing, by their place in it, with what may be meant.
     *
     * @param json that has been read without a fault
     */
    public static Map<String, String> unknownInSection(String json) {
        Map<String, String> unknown = new LinkedHashMap<>();
        JsonNode file = MAPPER.readTree(json);
        file.propertyNames().stream()
                .filter(k -> !SECTION_KEYS.contains(k))
                .forEach(k -> unknown.put(k, meant(k, SECTION_KEYS)));
        int n = 0;
        for (JsonNode node : file.path("settings")) {
            Value.Parts parts = Value.of(node) instanceof Value.Parts p ? p : Value.parts();
            JsonEntry entry = new JsonEntry(parts.with("place", Value.of("section")), "settings[" + n++ + "]");
            setting(entry, Bands.USUAL);
            // The place of a setting of a section is the section.
            entry.unknown().stream()
                    .limit(MOST_UNKNOWN)
                    .forEach(at -> unknown.put(
                            at,
                            at.indexOf('.') == at.lastIndexOf('.')
                                    ? meant(at.substring(at.indexOf('.') + 1), SETTING_KEYS)
                                    : "Take it out, or look up what this kind of setting takes."));
        }
        unknown.keySet().removeIf(at -> at.substring(at.lastIndexOf('.') + 1).startsWith("$"));
        return unknown;
    }

    private static String meant(String key, Set<String> known) {
        return known.stream()
                .filter(k -> org.apache.commons.text.similarity.LevenshteinDistance.getDefaultInstance()
                                .apply(k, key)
                        <= 2)
                .findFirst()
                .map(m -> "Did you mean “" + m + "”?")
                .orElse("Known are " + String.join(", ", new TreeSet<>(known)) + ".");
    }

    private static List<Drawing> drawings(JsonEntry e) {
        List<Drawing> all = new ArrayList<>();
        for (Value v : e.list("drawings")) {
            List<String> parts = new ArrayList<>();
            if (v instanceof Value.Many many) {
                many.items().forEach(p -> parts.add(p instanceof Value.Text t ? t.text() : ""));
            }
            try {
                all.add(new Drawing(parts));
            } catch (BadInputException bad) {
                throw JsonEntry.bad(e.at("drawings"), bad.getMessage().replaceAll("\\.$", ""), bad.mend());
            }
        }
        return all;
    }
}
