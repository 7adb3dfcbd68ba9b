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
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;

/**
 * Settings as variables of stylesheet preprocessors: {@code $name: value;} in SCSS, {@code @name: value;} in LESS. Only
 * plain values are read; what a build computes is reported with its line.
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
                out.append("\n// ").append(palette.placeLabel(place)).append('\n');
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
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
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
    public record Read(List<Setting> settings, List<String> faults) {}

    /** @param place key of the place that the settings get */
    public static Read read(byte[] source, String file, String place) {
        SourceText text = SourceText.stylesheet(file, source);
        Language language = Language.of(file);
        List<Setting> settings = new ArrayList<>();
        List<String> faults = new ArrayList<>();
        Map<String, Setting> byKey = new LinkedHashMap<>();
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
                Setting s = setting(key, value, place, byKey, language);
                if (byKey.put(key, s) != null) {
                    settings.removeIf(x -> x.key().equals(key));
                    faults.add(where + "it is set twice; the later value counts.");
                }
                settings.add(s);
            } catch (BadInputException e) {
                faults.add(where + e.getMessage() + " " + e.mend());
            }
        }
        return new Read(settings, faults);
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
