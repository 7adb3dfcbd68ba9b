package org.calmpalette.core.formats;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.output.SettingSheets;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Settings as variables of stylesheet preprocessors: {@code $name: value;} in SCSS, {@code @name: value;} in LESS. Only
 * plain values are read; what a build computes is reported with its line. What a value cannot say of a setting stands beside it in a
 * comment that begins with {@code //=}, as {@code palette.json} has it, so what is written here is read back whole.
 */
public final class PreprocessorVariables {
    /** Which language, by the sign before a name. */
    public enum Language {
        SCSS('$'),
        LESS('@');

        private final char sign;

        Language(char sign) {
            this.sign = sign;
        }

        public static Language of(String file) {
            return Paths.ending(file).equals("less") ? LESS : SCSS;
        }
    }

    private static final Pattern COMMENT = Pattern.compile(
            "/\\*.*?(\\*/|\\z)|(?<![:\"'(])//[^\\n]*|\"(?:[^\"\\\\\\n]|\\\\.)*\"|'(?:[^'\\\\\\n]|\\\\.)*'",
            Pattern.DOTALL);
    private static final Pattern STATEMENT = Pattern.compile("([$@])([A-Za-z_][\\w-]*)\\s*:\\s*(.*)", Pattern.DOTALL);
    private static final String SAID = "//= ";
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final Pattern SAME = Pattern.compile("[$@]([A-Za-z_][\\w-]*)");
    private static final List<Kind> KINDS = List.of(
            ColorKind.ANY,
            LengthKind.ANY,
            NumberKind.ANY,
            BorderKind.ANY,
            ShadowKind.ANY,
            GradientKind.ANY,
            SpacingKind.ANY);

    private PreprocessorVariables() {}

    // Writing

    public static byte[] write(Palette palette, Language language) {
        Effective values = Effective.defaults(palette, Media.NONE);
        StringBuilder out = new StringBuilder("// The settings of ")
                .append(palette.name().replaceAll("\\R", " "))
                .append(", by place.\n");
        String place = null;
        for (Setting s : inOrder(palette)) {
            if (!s.place().equals(place)) {
                place = s.place();
                out.append("\n// ")
                        .append(palette.placeLabel(place).replaceAll("\\R", " "))
                        .append('\n');
                said(out, Value.parts("place", place, "label", palette.placeLabel(place)));
            }
            String value = value(s, values, palette.bands().widest(), language);
            out.append(value == null ? "// " : "")
                    .append(language.sign)
                    .append(s.key())
                    .append(": ")
                    .append(value == null ? s.kind().label() + ", which pages hold" : value)
                    .append(";");
            StringBuilder bands = new StringBuilder();
            for (Band b : palette.bands().list()) {
                String other = value(s, values, b, language);
                if (other != null && !other.equals(value) && s.bands().containsKey(b.key())) {
                    bands.append(bands.isEmpty() ? "; " : ", ")
                            .append(b.label())
                            .append(' ')
                            .append(other);
                }
            }
            out.append(" // ")
                    .append((s.label() + bands).replaceAll("\\R", " "))
                    .append('\n');
            said(out, PaletteJson.write(s));
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void said(StringBuilder out, Value what) {
        // On one line: JSON has no line ends but in texts, where they are escaped.
        out.append(SAID).append(what.json()).append('\n');
    }

    /** Those that are followed first: a preprocessor knows a variable from where it stands on. */
    private static List<Setting> inOrder(Palette palette) {
        List<Setting> order = new ArrayList<>();
        palette.settings().forEach(s -> place(s, palette, order));
        return order;
    }

    private static void place(Setting s, Palette palette, List<Setting> order) {
        if (!order.contains(s)) {
            s.following().forEach(f -> palette.setting(f.key()).ifPresent(o -> place(o, palette, order)));
            order.add(s);
        }
    }

    private static String value(Setting s, Effective values, Band band, Language language) {
        if (s.givenIn(band) instanceof Given.Follows f && f.how() instanceof Given.Same) {
            return language.sign + f.key();
        }
        Map<String, String> all = SettingSheets.properties(s, values.value(s, band), Paths::address);
        if (s.kind() instanceof YesNoKind) {
            return String.valueOf(((Value.Flag) values.value(s, band)).on());
        }
        String whole = all.get(s.property());
        return whole == null
                ? null
                : whole.replace(
                        "var(" + s.property() + "-picture)", all.getOrDefault(s.property() + "-picture", "none"));
    }

    // Reading

    /** What was read: settings for one place, and what could not be read, each with its line. */
    public record Read(List<Setting> settings, List<Place> places, List<String> faults) {}

    /** @param place key of the place that settings get of which the file says none */
    public static Read read(byte[] source, String file, String place) {
        return read(source, file, place, Bands.USUAL);
    }

    /** @param bands of the theme that the settings are for */
    public static Read read(byte[] source, String file, String place, Bands bands) {
        SourceText text = SourceText.stylesheet(file, source);
        Language language = Language.of(file);
        List<Setting> settings = new ArrayList<>();
        List<String> faults = new ArrayList<>();
        Map<String, Setting> byKey = new LinkedHashMap<>();
        Map<String, Place> places = new LinkedHashMap<>();
        Map<String, Setting> own = own(text, bands, places, faults);
        Map<String, String> written = written(own, places, bands, language);
        // What only pages hold has no value here.
        own.forEach((key, s) -> {
            if (!written.containsKey(key)) {
                byKey.put(key, s);
                settings.add(s);
            }
        });
        for (Statement st : statements(text)) {
            Matcher m = STATEMENT.matcher(st.text());
            if (!m.matches() || m.group(1).charAt(0) != language.sign) {
                continue;
            }
            String where = file + ", line " + text.line(st.start()) + ", " + m.group(1) + m.group(2) + ": ";
            String value = m.group(3)
                    .replaceFirst("\\s*(!default|!global)\\s*$", "")
                    .replaceFirst("\\s*(!default|!global)\\s*$", "")
                    .strip();
            String key = m.group(2).toLowerCase(Locale.ROOT).replace('_', '-');
            try {
                Setting before = own.get(key);
                Setting s = before == null
                        ? setting(key, value, place, byKey, language)
                        : value.equals(written.get(key)) ? before : changed(before, value, byKey, language);
                if (byKey.put(key, s) != null) {
                    settings.removeIf(x -> x.key().equals(key));
                    faults.add(where + "it is set twice; the later value counts.");
                }
                settings.add(s);
            } catch (BadInputException e) {
                faults.add(where + e.getMessage() + " " + e.mend());
            }
        }
        if (settings.stream().anyMatch(s -> s.place().equals(Place.EVERYWHERE.key()))) {
            places.putIfAbsent(Place.EVERYWHERE.key(), Place.EVERYWHERE);
        }
        // In the order in which they were: one that is followed stands before those that follow it.
        List<String> order = List.copyOf(own.keySet());
        settings.sort(java.util.Comparator.comparingInt(s -> {
            int at = order.indexOf(s.key());
            return at < 0 ? order.size() : at;
        }));
        return new Read(DesignTokens.usable(settings), List.copyOf(places.values()), faults);
    }

    /** Settings as the file says that they are, by key. @param places is told the places that it names */
    private static Map<String, Setting> own(
            SourceText text, Bands bands, Map<String, Place> places, List<String> faults) {
        Map<String, Setting> own = new LinkedHashMap<>();
        int[] at = {0};
        text.text().lines().forEach(line -> {
            at[0]++;
            if (!line.startsWith(SAID)) {
                return;
            }
            try {
                Value said = Value.of(MAPPER.readTree(line.substring(SAID.length())));
                if (said instanceof Value.Parts p && !p.has("key") && p.has("place")) {
                    places.putIfAbsent(p.text("place"), new Place(p.text("place"), p.text("label")));
                } else {
                    Setting s = PaletteJson.readSetting(said, bands);
                    own.put(s.key(), s);
                    places.putIfAbsent(s.place(), new Place(s.place(), s.place()));
                }
            } catch (JacksonException e) {
                faults.add(text.file() + ", line " + at[0] + ": what stands behind //= is not JSON; it is left aside.");
            } catch (BadInputException e) {
                faults.add(text.file() + ", line " + at[0] + ": " + e.getMessage() + " " + e.mend());
            }
        });
        return own;
    }

    /** What the file said of each when it was written. */
    private static Map<String, String> written(
            Map<String, Setting> own, Map<String, Place> places, Bands bands, Language language) {
        Map<String, String> all = new LinkedHashMap<>();
        List<Setting> usable = DesignTokens.usable(List.copyOf(own.values())).stream()
                .map(s -> s.withBands(Map.of()).withShown(null))
                .toList();
        Palette palette = new Palette("", bands, List.copyOf(places.values()), usable, List.of(), List.of());
        Effective values = Effective.defaults(palette, Media.NONE);
        for (Setting s : palette.settings()) {
            String value = value(s, values, bands.widest(), language);
            if (value != null) {
                all.put(s.key(), value);
            }
        }
        return all;
    }

    /** A setting whose value somebody changed in the file. */
    private static Setting changed(Setting s, String value, Map<String, Setting> known, Language language) {
        Matcher same = SAME.matcher(value);
        if (same.matches() || s.kind() instanceof YesNoKind) {
            return s.withGiven(
                    setting(s.key(), value, s.place(), known, language).given());
        }
        return s.withGiven(new Given.Fixed(s.kind()
                .readCss(value)
                .orElseThrow(() -> new BadInputException(
                        "“" + brief(value) + "” is no " + s.kind().label() + ".",
                        "Write it like " + s.kind().words(s.kind().initial()) + "."))));
    }

    private static Setting setting(
            String key, String value, String place, Map<String, Setting> known, Language language) {
        String label = key.replace('-', ' ').strip();
        label = label.substring(0, 1).toUpperCase(Locale.ROOT)
                + label.substring(1, Math.min(label.length(), Setting.LONGEST_LABEL));
        Matcher same = SAME.matcher(value);
        if (same.matches()) {
            Setting other = known.get(same.group(1).toLowerCase(Locale.ROOT).replace('_', '-'));
            if (other == null) {
                throw new BadInputException(value + " is not set before it, or could not be read.", "Write its value.");
            }
            return Setting.of(key, label, "", place, other.kind(), other.kind().initial())
                    .withGiven(new Given.Follows(other.key(), new Given.Same()));
        }
        Optional<Setting> plain = plain(key, label, place, value);
        if (plain.isPresent()) {
            return plain.get();
        }
        boolean computed = value.indexOf(language.sign) >= 0
                || value.contains("#{")
                || value.startsWith("(")
                || value.matches(".*[\\w)]\\s*[*+/]\\s*[\\w($@].*")
                || value.matches("(?s)[\\w.-]+\\(.*\\)");
        throw new BadInputException(
                computed
                        ? "“" + brief(value) + "” is computed by the build."
                        : "“" + brief(value) + "” is nothing that a kind of setting holds.",
                computed ? "Write what it comes to, or leave it to the build." : "It is left aside.");
    }

    private static Optional<Setting> plain(String key, String label, String place, String value) {
        if (value.equals("true") || value.equals("false")) {
            return Optional.of(Setting.of(key, label, "", place, YesNoKind.PLAIN, Value.of(value.equals("true"))));
        }
        if (value.matches("\"[^\"\\\\\\n]*\"|'[^'\\\\\\n]*'")) {
            return Optional.of(
                    Setting.of(key, label, "", place, TextKind.LINE, Value.of(value.substring(1, value.length() - 1))));
        }
        for (Kind k : KINDS) {
            Optional<Value> v = k.readCss(value);
            if (v.isPresent() && !value.equals("none")) {
                boolean percent = k instanceof LengthKind
                        && ((Value.Parts) v.get()).text("unit").equals("%");
                boolean zero = k instanceof LengthKind && value.matches("[+-]?0+(\\.0*)?");
                return Optional.of(
                        percent
                                ? Setting.of(
                                        key,
                                        label,
                                        "",
                                        place,
                                        NumberKind.PERCENTAGE,
                                        ((Value.Parts) v.get()).part("value").orElseThrow())
                                : zero
                                        ? Setting.of(key, label, "", place, NumberKind.ANY, Value.of(0))
                                        : Setting.of(key, label, "", place, k, v.get()));
            }
        }
        return Optional.empty();
    }

    private static String brief(String value) {
        String one = value.replaceAll("\\s+", " ");
        return one.length() > 60 ? one.substring(0, 60) + "…" : one;
    }

    private record Statement(int start, String text) {}

    /** The statements outside of all braces, without comments. */
    private static List<Statement> statements(SourceText source) {
        String text = source.text();
        StringBuilder bare = new StringBuilder(text);
        Matcher m = COMMENT.matcher(text);
        while (m.find()) {
            if (m.group().startsWith("/")) {
                for (int i = m.start(); i < m.end(); i++) {
                    bare.setCharAt(i, text.charAt(i) == '\n' ? '\n' : ' ');
                }
            }
        }
        List<Statement> all = new ArrayList<>();
        int depth = 0;
        int start = 0;
        char quote = 0;
        for (int i = 0; i < bare.length(); i++) {
            char c = bare.charAt(i);
            if (quote != 0) {
                quote = c == quote || c == '\n' ? 0 : quote;
            } else if (c == '"' || c == '\'') {
                quote = c;
            } else if (c == '{' || c == '(') {
                depth++;
            } else if (c == '}' || c == ')') {
                depth = Math.max(0, depth - 1);
                start = c == '}' && depth == 0 ? i + 1 : start;
            } else if (c == ';') {
                String one = bare.substring(start, i);
                if (depth == 0 && !one.isBlank()) {
                    all.add(new Statement(
                            start + one.length() - one.stripLeading().length(), one.strip()));
                }
                start = i + 1;
            }
        }
        return all;
    }
}
