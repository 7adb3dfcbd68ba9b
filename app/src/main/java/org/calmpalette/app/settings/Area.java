package org.calmpalette.app.settings;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.promise.Perceivable;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.setting.Value;

/**
 * The safe area of a colour as its field draws it, in CSS's {@code hsl()}.
 *
 * @param safe for each hue, evenly from 0 to 360 degrees, from and to in percent of lightness where all texts can be read; empty if no
 *     field was asked for
 * @param allowed the same for what the setting's limits let pass
 * @param legend what the field shows
 * @param state of the colour that was asked about: kept, breaks, or empty for none
 * @param said about that colour
 */
public record Area(List<List<double[]>> safe, List<List<double[]>> allowed, String legend, String state, String said) {
    private static final int COLUMNS = 73;

    /**
     * @param now what the setting's limits are judged beside
     * @param owner whether an owner reads it, who knows no ratios and nothing of what other choices may do
     * @param saturation of the field, 0 to 100; -1 for no field
     * @param at a colour, or empty
     */
    public static Area of(SafeArea area, Setting setting, Effective now, boolean owner, int saturation, String at) {
        boolean drawn = saturation >= 0 && saturation <= 100;
        List<List<double[]>> safe = drawn ? area.field(saturation, COLUMNS).columns() : List.of();
        Optional<Color> color = Color.parse(at.strip());
        Optional<SafeArea.Met> worst = color.flatMap(area::worst);
        boolean keeps = color.filter(area::keeps).isPresent();
        boolean none = drawn && safe.stream().allMatch(List::isEmpty) && worst.isPresent();
        return new Area(
                safe,
                drawn
                        ? SafeArea.field(saturation, COLUMNS, c -> isAllowed(setting, now, c))
                                .columns()
                        : List.of(),
                none ? none(area) : legend(area, owner, now.palette().thresholds()),
                worst.isEmpty() ? "" : keeps ? "kept" : "breaks",
                worst.map(m -> owner ? plain(m, keeps, now.palette().thresholds()) : exact(m, keeps))
                        .orElse(""));
    }

    /** Texts may ask for what cannot be had together. */
    private static String none(SafeArea area) {
        String dark = named(area.worst(Color.BLACK).orElseThrow());
        String light = named(area.worst(Color.WHITE).orElseThrow());
        return dark.equals(light) ? Language.say("area.none") : Language.say("area.none.both", dark, light);
    }

    /** A text with the state in which it is seen so, as people say it. */
    public static String named(SafeArea.Met m) {
        String named = quoted(m.words());
        String words = m.what() == Perceivable.TEXT
                ? named
                : Language.say("text." + m.what().key(), named);
        String seen =
                switch (m.pseudoClass()) {
                    case "" -> words;
                    case "hover", "active", "focus", "visited", "placeholder-shown" ->
                        Language.say("text." + m.pseudoClass(), words);
                    default -> Language.say("text.used", words);
                };
        return m.dark() ? Language.say("text.dark", seen) : seen;
    }

    private static boolean isAllowed(Setting setting, Effective now, Color c) {
        return setting.kind()
                .refusal(
                        Value.of(ColorKey.of(c)),
                        now.around(now.palette().bands().widest()))
                .isEmpty();
    }

    private static String legend(SafeArea area, boolean owner, Thresholds promised) {
        if (area.count() == 0) {
            return owner ? "" : "No text is painted by it, or stands on it.";
        }
        if (owner) {
            return Language.say(
                    promised.whatever()
                            ? "area.legend.whatever"
                            : promised.kept() ? "area.legend.kept" : "area.legend");
        }
        List<String> regardless = area.regardless();
        String others = regardless.stream().limit(3).map(Area::quoted).collect(Collectors.joining(", "));
        return "Striped: a text is hard to read, with what else may be chosen. Grey: not allowed."
                + (regardless.isEmpty()
                        ? ""
                        : " Left out, as no colour here mends "
                                + (regardless.size() == 1 ? "it: " : "them: ") + others
                                + (regardless.size() > 3 ? " and " + (regardless.size() - 3) + " more." : "."));
    }

    private static String plain(SafeArea.Met m, boolean keeps, Thresholds promised) {
        return keeps
                ? Language.say("area.clear")
                : Language.say(promised.whatever() ? "area.hard.whatever" : "area.hard", named(m));
    }

    private static String exact(SafeArea.Met m, boolean keeps) {
        String ratio = String.format(Locale.ROOT, "%.2f", Math.floor(m.ratio() * 100) / 100);
        return "Least of all pages and choices: " + named(m) + ", " + ratio + " to 1"
                + (keeps ? "." : "; " + org.calmpalette.core.promise.Answer.plain(m.needed()) + " is needed.");
    }

    private static String quoted(String words) {
        return words.isEmpty() ? Language.say("text.some") : Language.say("quoted", words);
    }
}
