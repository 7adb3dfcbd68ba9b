package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * All that a theme says about its settings: the content of {@code palette.json}.
 *
 * @param subjects what must stay in sight of pictures; each picture once
 * @param moved paths that pictures had before, with those they have: what owners chose by them still counts
 * @param sheets whose a stylesheet is, by path, where the maker said it
 * @param terms what the maker says of the promises
 * @param translations of what owners read
 * @param faults what the file says that could not be understood; it stays in the file
 */
public record Palette(
        String name,
        Bands bands,
        List<Place> places,
        List<Setting> settings,
        List<Scheme> schemes,
        List<Subject> subjects,
        Map<String, String> moved,
        Map<String, SheetOwner> sheets,
        PromiseTerms terms,
        Translations translations,
        List<Fault> faults) {
    public static final String FILE = "palette.json";
    public static final int MOST_SETTINGS = 1_200;

    /**
     * Something in {@code palette.json} that is left aside.
     *
     * @param at the place, as {@code settings[2].default}
     * @param line counted from 1; 0 if it is not known
     */
    public record Fault(String at, int line, String what, String mend) {
        public String message() {
            return FILE + (line > 0 ? ", line " + line : "") + ", " + at + ": " + what;
        }
    }

    /** Without pictures that anybody marked something in. */
    public Palette(
            String name,
            Bands bands,
            List<Place> places,
            List<Setting> settings,
            List<Scheme> schemes,
            List<Fault> faults) {
        this(
                name,
                bands,
                places,
                settings,
                schemes,
                List.of(),
                Map.of(),
                Map.of(),
                PromiseTerms.USUAL,
                Translations.NONE,
                faults);
    }

    /** @throws BadInputException if two settings have one key, one follows what is not there, or they follow in a circle */
    public Palette {
        places = List.copyOf(places);
        settings = List.copyOf(settings);
        schemes = List.copyOf(schemes);
        subjects = List.copyOf(subjects);
        moved = Collections.unmodifiableMap(new TreeMap<>(moved));
        sheets = Collections.unmodifiableMap(new TreeMap<>(sheets));
        faults = List.copyOf(faults);
        Map<String, Setting> byKey = new LinkedHashMap<>();
        for (Setting s : settings) {
            if (byKey.put(s.key(), s) != null) {
                throw new BadInputException(
                        "There is a setting with the key “" + s.key() + "” already: "
                                + byKey.get(s.key()).label() + ".",
                        "Choose another key.");
            }
        }
        if (settings.size() > MOST_SETTINGS) {
            throw new BadInputException(
                    "A theme has at most " + MOST_SETTINGS + " settings.",
                    "Remove some, or let several parts follow one.");
        }
        for (Setting s : settings) {
            checkReferences(s, byKey, bands);
        }
        for (Setting s : settings) {
            List<String> chain = circle(s, byKey);
            if (!chain.isEmpty()) {
                throw new BadInputException(
                        "Settings follow each other in a circle: " + String.join(" → ", chain) + ".",
                        "Give one of them a value of its own.");
            }
        }
    }

    private static void checkReferences(Setting s, Map<String, Setting> byKey, Bands bands) {
        for (Given.Follows f : s.following()) {
            List<String> read = new ArrayList<>(List.of(f.key()));
            f.how().alsoReads().ifPresent(read::add);
            for (String key : read) {
                Setting other = byKey.get(key);
                if (other == null) {
                    throw new BadInputException(
                            "“" + s.label() + "” follows “" + key + "”, and there is no such setting.",
                            "Let it follow one that is there.");
                }
                if (!other.kind().name().equals(s.kind().name())) {
                    throw new BadInputException(
                            "“" + s.label() + "” is a " + s.kind().label() + " and follows “" + other.label()
                                    + "”, which is a " + other.kind().label() + ".",
                            "Let it follow a " + s.kind().label() + ".");
                }
            }
        }
        if (s.shown() != null
                && !s.shown().isNever()
                && (!byKey.containsKey(s.shown().key()) || s.shown().key().equals(s.key()))) {
            throw new BadInputException(
                    "“" + s.label() + "” is asked for depending on “"
                            + s.shown().key() + "”, and there is no such other setting.",
                    "Name the key of another setting.");
        }
        for (String band : s.bands().keySet()) {
            if (bands.band(band).isEmpty() || bands.widest().key().equals(band)) {
                throw new BadInputException(
                        "“" + s.label() + "” has a default for the band “" + band + "”"
                                + (bands.band(band).isEmpty()
                                        ? ", which the theme does not have."
                                        : ", the widest one, whose default is the setting's own."),
                        "Name one of "
                                + String.join(
                                        ", ",
                                        bands.list().subList(0, bands.list().size() - 1).stream()
                                                .map(Band::key)
                                                .toList())
                                + ".");
            }
        }
    }

    /** The keys from a setting back to itself, if it follows itself in the end; else nothing. */
    static List<String> circle(Setting start, Map<String, Setting> byKey) {
        List<String> path = new ArrayList<>();
        return walk(start, start.key(), byKey, path, new HashSet<>()) ? path : List.of();
    }

    private static boolean walk(
            Setting s, String wanted, Map<String, Setting> byKey, List<String> path, Set<String> seen) {
        path.add(s.key());
        for (Given.Follows f : s.following()) {
            List<String> next = new ArrayList<>(List.of(f.key()));
            f.how().alsoReads().ifPresent(next::add);
            for (String key : next) {
                if (key.equals(wanted)) {
                    path.add(key);
                    return true;
                }
                if (byKey.containsKey(key) && seen.add(key) && walk(byKey.get(key), wanted, byKey, path, seen)) {
                    return true;
                }
            }
        }
        path.remove(path.size() - 1);
        return false;
    }

    public static Palette empty(String name) {
        return new Palette(name, Bands.USUAL, List.of(), List.of(), List.of(), List.of());
    }

    public Optional<Setting> setting(String key) {
        return settings.stream().filter(s -> s.key().equals(key)).findFirst();
    }

    /** Values for every window, see {@link Setting#chosen}; of settings that are not there for every window alike. */
    public Map<String, Chosen> chosen(Map<String, Value> values) {
        Map<String, Chosen> all = new LinkedHashMap<>();
        values.forEach(
                (key, v) -> all.put(key, setting(key).map(s -> s.chosen(v)).orElse(Chosen.of(v))));
        return all;
    }

    /** The setting that has a key, or had it before. */
    public Optional<Setting> knownAs(String key) {
        return setting(key)
                .or(() ->
                        settings.stream().filter(s -> s.former().contains(key)).findFirst());
    }

    /**
     * Choices under the keys that settings have today, of pictures under the paths that they have today; those made under a former
     * one are carried over.
     */
    public Map<String, Chosen> carried(Map<String, Chosen> choices) {
        Map<String, Chosen> now = new java.util.TreeMap<>();
        choices.forEach((key, chosen) -> {
            String today = knownAs(key).map(Setting::key).orElse(key);
            if (today.equals(key) || !choices.containsKey(today)) {
                now.put(
                        today,
                        setting(today).map(x -> withMoved(chosen, x.kind())).orElse(chosen));
            }
        });
        return now;
    }

    private Chosen withMoved(Chosen chosen, Kind kind) {
        if (moved.isEmpty() || !namesFiles(kind)) {
            return chosen;
        }
        Map<String, Value> each = new LinkedHashMap<>();
        chosen.bands().forEach((band, v) -> each.put(band, inFiles(kind, v, moved)));
        return new Chosen(chosen.everywhere() == null ? null : inFiles(kind, chosen.everywhere(), moved), each);
    }

    private static boolean namesFiles(Kind kind) {
        return kind instanceof PictureKind
                || kind instanceof BackgroundKind
                || kind instanceof VideoKind
                || kind instanceof ItemsKind;
    }

    /** A value with other paths of files; words that happen to read like a path stay. */
    private static Value inFiles(Kind kind, Value value, Map<String, String> names) {
        if (!(kind instanceof ItemsKind items) || !(value instanceof Value.Many many)) {
            return value.withTexts(names);
        }
        return new Value.Many(many.items().stream()
                .map(one -> {
                    // Choices come as they were kept, whatever the kind was then.
                    if (!(one instanceof Value.Parts before)) {
                        return one;
                    }
                    Map<String, Value> parts = new LinkedHashMap<>(before.parts());
                    items.parts().forEach((key, part) -> {
                        if (part.kind() instanceof PictureKind) {
                            parts.computeIfPresent(key, (k, v) -> v.withTexts(names));
                        }
                    });
                    return (Value) new Value.Parts(parts);
                })
                .toList());
    }

    /**
     * With another path for a picture, wherever the palette names it; choices that name the one it had go on counting.
     *
     * @throws BadInputException if another picture had that path before
     */
    public Palette withPictureMoved(String from, String to) {
        if (moved.containsKey(to) && !moved.get(to).equals(from)) {
            throw new BadInputException(
                    moved.get(to) + " was called " + to + " before, and owners may have chosen it by that name.",
                    "Choose another name.");
        }
        Map<String, String> names = Map.of(from, to);
        Map<String, String> later = new TreeMap<>(moved);
        later.replaceAll((former, now) -> now.equals(from) ? to : now);
        later.put(from, to);
        later.remove(to);
        List<Setting> all = new ArrayList<>();
        for (Setting s : settings) {
            if (!namesFiles(s.kind())) {
                all.add(s);
                continue;
            }
            Map<String, Given> each = new LinkedHashMap<>();
            s.bands().forEach((band, g) -> each.put(band, moved(s.kind(), g, names)));
            Kind kind =
                    Kinds.read(s.kind().name(), (Value.Parts) s.kind().allowed().withTexts(names));
            all.add(s.withKind(kind)
                    .withGiven(moved(s.kind(), s.given(), names))
                    .withBands(each));
        }
        Palette after =
                new Palette(name, bands, places, all, schemes, subjects, names, sheets, terms, translations, faults);
        return new Palette(
                name,
                bands,
                places,
                all,
                schemes.stream()
                        .map(s -> new Scheme(s.key(), s.label(), after.carried(s.values())))
                        .toList(),
                subjects.stream().map(s -> s.path().equals(from) ? s.at(to) : s).toList(),
                later,
                sheets,
                terms,
                translations,
                faults);
    }

    /** The settings whose default in a band names a picture. */
    public List<Setting> naming(String picture, Band band) {
        return settings.stream()
                .filter(s -> namesFiles(s.kind())
                        && s.givenIn(band) instanceof Given.Fixed f
                        && !inFiles(s.kind(), f.value(), Map.of(picture, picture + "\n"))
                                .equals(f.value()))
                .toList();
    }

    /** With another picture in one band, for every setting whose default names it there. */
    public Palette withPictureIn(Band band, String from, String to) {
        List<Setting> naming = naming(from, band);
        return withSettings(settings.stream()
                .map(s -> {
                    if (!naming.contains(s)) {
                        return s;
                    }
                    Map<String, Given> each = new LinkedHashMap<>(s.bands());
                    each.put(band.key(), moved(s.kind(), s.givenIn(band), Map.of(from, to)));
                    return s.withBands(each);
                })
                .toList());
    }

    private static Given moved(Kind kind, Given given, Map<String, String> names) {
        return given instanceof Given.Fixed f ? new Given.Fixed(inFiles(kind, f.value(), names)) : given;
    }

    /** @throws BadInputException if there is none any more */
    public Setting known(String key) {
        return setting(key)
                .orElseThrow(() -> new BadInputException(
                        "There is no setting “" + key + "” any more.", "Open the settings again."));
    }

    /** Every custom property that a setting becomes, with the setting. */
    public Map<String, Setting> properties() {
        Map<String, Setting> all = new LinkedHashMap<>();
        for (Setting s : settings) {
            Value any =
                    s.given() instanceof Given.Fixed f ? f.value() : s.kind().initial();
            s.kind().css(any, a -> a).keySet().forEach(suffix -> all.put(s.property() + suffix, s));
            if (s.triple()) {
                all.put(s.tripleProperty(), s);
            }
            for (int i = 0; i < s.drawings().size(); i++) {
                all.put(s.drawingProperty(i), s);
            }
        }
        return all;
    }

    public Optional<Place> place(String key) {
        return places.stream().filter(p -> p.key().equals(key)).findFirst();
    }

    /** The place with a label, whatever the case of its letters; a new one if there is none; everywhere for an empty label. */
    public Place placeCalled(String label) {
        String wanted = label.strip();
        if (wanted.length() > Setting.LONGEST_LABEL) {
            throw new BadInputException(
                    "The name of the place is too long.", "Use at most " + Setting.LONGEST_LABEL + " characters.");
        }
        return wanted.isEmpty()
                ? Place.EVERYWHERE
                : places.stream()
                        .filter(p -> p.label().equalsIgnoreCase(wanted))
                        .findFirst()
                        .orElseGet(() -> new Place(Place.keyOf(wanted), wanted));
    }

    public String placeLabel(String key) {
        return place(key).map(Place::label).orElse(key);
    }

    public List<Setting> settingsIn(Place place) {
        return settings.stream().filter(s -> s.place().equals(place.key())).toList();
    }

    /** What a default follows, with labels for people. */
    public String said(Given.Follows f) {
        UnaryOperator<String> named =
                key -> Language.say("quoted", setting(key).map(Setting::label).orElse(key));
        return f.renamed(named).inWords();
    }

    /** Settings that follow one, or are asked for depending on it. */
    public List<Setting> dependents(String key) {
        return settings.stream()
                .filter(s -> s.following().stream()
                                .anyMatch(f -> f.key().equals(key)
                                        || f.how()
                                                .alsoReads()
                                                .filter(key::equals)
                                                .isPresent())
                        || s.shown() != null && s.shown().key().equals(key))
                .toList();
    }

    /** With one more setting, and its place if it is new. @throws BadInputException if the key exists */
    public Palette with(Setting setting, Place place) {
        List<Setting> more = new ArrayList<>(settings);
        more.add(setting);
        return withPlace(place).withSettings(more);
    }

    /** With a setting in the stead of the one that has its key. */
    public Palette replacing(Setting setting, Place place) {
        return withPlace(place)
                .withSettings(settings.stream()
                        .map(s -> s.key().equals(setting.key()) ? setting : s)
                        .toList());
    }

    /** @throws BadInputException if another setting depends on it */
    public Palette without(String key) {
        List<Setting> others = dependents(key);
        if (!others.isEmpty()) {
            throw new BadInputException(
                    "“" + others.get(0).label() + "” depends on it.",
                    "Give “" + others.get(0).label() + "” a value of its own first.");
        }
        List<Scheme> lighter = schemes.stream()
                .map(s -> {
                    Map<String, Chosen> values = new LinkedHashMap<>(s.values());
                    values.remove(key);
                    return new Scheme(s.key(), s.label(), values);
                })
                .toList();
        return new Palette(
                name,
                bands,
                places,
                settings.stream().filter(s -> !s.key().equals(key)).toList(),
                lighter,
                subjects,
                moved,
                sheets,
                terms.without(key),
                translations,
                faults);
    }

    /** With a setting moved to stand before another one, or at the end of its place; it gets that one's place. */
    public Palette moved(String key, String before) {
        Setting s = known(key);
        List<Setting> more = new ArrayList<>(settings);
        more.remove(s);
        if (before.isEmpty()) {
            int last = more.size();
            for (int i = 0; i < more.size(); i++) {
                last = more.get(i).place().equals(s.place()) ? i + 1 : last;
            }
            more.add(last, s);
            return withSettings(more);
        }
        Setting target = known(before);
        more.add(more.indexOf(target), s.withPlace(target.place()));
        return withSettings(more);
    }

    /** With another key for a setting, here and wherever the palette speaks of it. */
    public Palette renamed(String key, String to) {
        Setting.checkKey(to);
        if (!key.equals(to) && setting(to).isPresent()) {
            throw new BadInputException("There is a setting with the key “" + to + "” already.", "Choose another key.");
        }
        UnaryOperator<String> name = k -> k.equals(key) ? to : k;
        List<Setting> all = new ArrayList<>();
        for (Setting s : settings) {
            Setting r = s.key().equals(key) ? s.withKey(to) : s;
            Map<String, Given> each = new LinkedHashMap<>();
            r.bands().forEach((band, g) -> each.put(band, g.renamed(name)));
            r = r.withGiven(r.given().renamed(name))
                    .withBands(each)
                    .withKind(r.kind().renamed(name));
            all.add(
                    r.shown() == null || r.shown().isNever()
                            ? r
                            : r.withShown(new Setting.Shown(
                                    name.apply(r.shown().key()), r.shown().is())));
        }
        List<Scheme> others = schemes.stream()
                .map(s -> {
                    Map<String, Chosen> values = new LinkedHashMap<>();
                    s.values().forEach((k, v) -> values.put(name.apply(k), v));
                    return new Scheme(s.key(), s.label(), values);
                })
                .toList();
        return new Palette(
                this.name,
                bands,
                places,
                all,
                others,
                subjects,
                moved,
                sheets,
                terms.renamed(name),
                translations,
                faults);
    }

    public Palette withSettings(List<Setting> all) {
        return new Palette(name, bands, places, all, schemes, subjects, moved, sheets, terms, translations, faults);
    }

    /** With other bands; defaults for bands that are gone, or are the widest now, go with them. */
    public Palette withBands(Bands others) {
        List<Setting> all = settings.stream()
                .map(s -> {
                    Map<String, Given> left = new LinkedHashMap<>(s.bands());
                    left.keySet()
                            .removeIf(k -> others.band(k).isEmpty()
                                    || others.widest().key().equals(k));
                    return s.withBands(left);
                })
                .toList();
        return new Palette(name, others, places, all, schemes, subjects, moved, sheets, terms, translations, faults);
    }

    public Palette withSchemes(List<Scheme> others) {
        return new Palette(name, bands, places, settings, others, subjects, moved, sheets, terms, translations, faults);
    }

    /** What must stay in sight of a picture. */
    public Optional<Subject> subject(String path) {
        return subjects.stream().filter(s -> s.path().equals(path)).findFirst();
    }

    /** With a subject of a picture, in place of the one it had. */
    public Palette withSubject(Subject subject) {
        Palette rest = withoutSubject(subject.path());
        List<Subject> all = new ArrayList<>(rest.subjects);
        all.add(subject);
        return new Palette(name, bands, places, settings, schemes, all, moved, sheets, terms, translations, faults);
    }

    public Palette withoutSubject(String path) {
        return new Palette(
                name,
                bands,
                places,
                settings,
                schemes,
                subjects.stream().filter(s -> !s.path().equals(path)).toList(),
                moved,
                sheets,
                terms,
                translations,
                faults);
    }

    /** With a stylesheet being somebody's, or with what its signs tell where nothing is said. @param owner null for the latter */
    public Palette withSheet(String path, SheetOwner owner) {
        Map<String, SheetOwner> said = new TreeMap<>(sheets);
        if (owner == null) {
            said.remove(path);
        } else {
            said.put(path, owner);
        }
        return new Palette(name, bands, places, settings, schemes, subjects, moved, said, terms, translations, faults);
    }

    /** Reasons are told to whoever looks next. */
    public static final int LONGEST_REASON = 400;

    /**
     * With a promise that is not given, or given again.
     *
     * @param reason null for the latter; may be empty
     */
    public Palette withWaived(String promise, String reason) {
        return with(terms.withWaived(
                promise,
                reason != null && reason.length() > LONGEST_REASON ? reason.substring(0, LONGEST_REASON) : reason));
    }

    private Palette with(PromiseTerms others) {
        return new Palette(
                name, bands, places, settings, schemes, subjects, moved, sheets, others, translations, faults);
    }

    public Palette withTranslations(Translations others) {
        return new Palette(name, bands, places, settings, schemes, subjects, moved, sheets, terms, others, faults);
    }

    /** With its labels and helps as there are for the language that this thread speaks. */
    public Palette spoken() {
        Language language = Language.spoken();
        Map<String, String> own = translations.in(language.tag());
        return own.isEmpty() && language == Language.english()
                ? this
                : withTexts(text -> own.getOrDefault(text, language.label(text)));
    }

    /** All that owners read of it and can be translated, in its order, each once. */
    public List<String> texts() {
        Set<String> all = new LinkedHashSet<>();
        withTexts(text -> {
            if (!text.isBlank()) {
                all.add(text);
            }
            return text;
        });
        return List.copyOf(all);
    }

    /** Characters that a translation of a text may have: labels stand where there is little room. */
    public int longest(String text) {
        return settings.stream().anyMatch(s -> s.help().equals(text)) ? Setting.LONGEST_HELP : Setting.LONGEST_LABEL;
    }

    private Palette withTexts(UnaryOperator<String> to) {
        // A file may hold a translation for which there is no room; then the text stays.
        UnaryOperator<String> label = text -> {
            String other = to.apply(text);
            return other.length() <= Setting.LONGEST_LABEL ? other : text;
        };
        return new Palette(
                name,
                new Bands(bands.list().stream()
                        .map(b -> new Band(b.key(), label.apply(b.label()), b.to()))
                        .toList()),
                places.stream()
                        .map(p -> new Place(p.key(), label.apply(p.label())))
                        .toList(),
                settings.stream()
                        .map(s -> s.withTexts(
                                label.apply(s.label()),
                                s.help().isEmpty() ? "" : to.apply(s.help()),
                                s.kind().withTexts(label)))
                        .toList(),
                schemes.stream()
                        .map(s -> new Scheme(s.key(), label.apply(s.label()), s.values()))
                        .toList(),
                subjects.stream()
                        .map(s -> s.name().isEmpty() ? s : s.named(label.apply(s.name())))
                        .toList(),
                moved,
                sheets,
                terms,
                translations,
                faults);
    }

    /** With a promise about two settings, in place of one about the same two. */
    public Palette withBetween(Between wanted) {
        known(wanted.one());
        known(wanted.other());
        return with(terms.with(wanted));
    }

    public Palette withoutBetween(Between gone) {
        return with(terms.without(gone));
    }

    public Palette withThresholds(Thresholds others) {
        return with(terms.with(others));
    }

    /** Promises that the maker does not give, by what they are called, with the reason. */
    public Map<String, String> waived() {
        return terms.waived();
    }

    /** What the maker promises of two settings. */
    public List<Between> between() {
        return terms.between();
    }

    public Thresholds thresholds() {
        return terms.thresholds();
    }

    /** Without a place that no setting is in. */
    public Palette withoutPlace(String key) {
        return new Palette(
                name,
                bands,
                places.stream()
                        .filter(p -> !p.key().equals(key) || !settingsIn(p).isEmpty())
                        .toList(),
                settings,
                schemes,
                subjects,
                moved,
                sheets,
                terms,
                translations,
                faults);
    }

    public Palette withPlace(Place place) {
        if (place(place.key()).isPresent()) {
            return this;
        }
        List<Place> more = new ArrayList<>(places);
        more.add(place);
        return new Palette(name, bands, more, settings, schemes, subjects, moved, sheets, terms, translations, faults);
    }
}
