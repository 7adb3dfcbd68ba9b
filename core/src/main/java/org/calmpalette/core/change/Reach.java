package org.calmpalette.core.change;

import java.util.Optional;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * How far a new setting reaches, tried before it is made: what looks different once it has another value than today's. Looked at is what
 * is seen while nothing is pointed at.
 *
 * @param other what looks different; null where the setting allows no other value
 * @param with the other value, in words
 */
public record Reach(Trial other, String with) {
    /** @param change that makes the setting with this key */
    public static Reach of(Rendered before, Change change, String key) {
        Theme made = change.applied(before.theme());
        Rendered after = new Rendered(made);
        Setting setting = made.palette().known(key);
        Effective values = ThemeBuild.defaults(made);
        Value now = values.value(setting, made.palette().bands().widest());
        // How far it reaches does not depend on what an owner may choose.
        Kind free = setting.kind() instanceof ColorKind ? ColorKind.ANY : setting.kind();
        Optional<Value> other = AnotherValue.of(free, now);
        Trial tried = other.map(v -> Trial.between(
                        after,
                        new Rendered(Change.of("")
                                .withPalette(
                                        made,
                                        made.palette()
                                                .withSettings(made.palette().settings().stream()
                                                        .map(s -> s.key().equals(key)
                                                                ? s.withKind(free)
                                                                        .withGiven(new Given.Fixed(v))
                                                                : s)
                                                        .toList()))
                                .applied(made))))
                .orElse(null);
        return new Reach(tried, other.map(v -> setting.kind().words(v)).orElse(""));
    }

    /** One sentence for who is about to make it; empty where nothing was tried. */
    public String inWords() {
        return other == null
                ? ""
                : other.parts() == 0
                        ? "Tried with " + with
                                + ": nothing looks different while nothing is pointed at; other rules decide there, or no page shows it."
                        : "Tried with " + with + ": " + lower(other.inWords());
    }

    private static String lower(String sentence) {
        return sentence.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + sentence.substring(1);
    }
}
