package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.color.HueArc;
import org.calmpalette.core.color.Interpolation;
import org.calmpalette.core.language.Language;

/** What a maker gives a setting as its default: a value, or another setting to follow. */
public sealed interface Given {
    Value value();

    /** A value of the setting's kind. */
    record Fixed(Value value) implements Given {}

    /** The same where other settings are called otherwise. */
    default Given renamed(UnaryOperator<String> name) {
        return this;
    }

    /**
     * Follows another setting, at every window width what that one has there.
     *
     * @param key of the other setting
     */
    record Follows(String key, How how) implements Given {
        @Override
        public Follows renamed(UnaryOperator<String> name) {
            How read = how instanceof Mixed m && m.alsoReads().isPresent()
                    ? new Mixed(name.apply(m.with()), m.share())
                    : how;
            return new Follows(name.apply(key), read);
        }

        /** As {@code palette.json} writes it. */
        @Override
        public Value value() {
            Value.Parts p = Value.parts("follows", key);
            if (how instanceof Lighter l) {
                return p.with("lighter", Value.of(l.by()));
            }
            if (how instanceof Darker d) {
                return p.with("darker", Value.of(d.by()));
            }
            if (how instanceof Mixed m) {
                return p.with("mixed", Value.parts("with", m.with(), "share", m.share()));
            }
            if (how instanceof Translucent t) {
                return p.with("opacity", Value.of(t.opacity()));
            }
            if (how instanceof Computed c) {
                return p.with("computed", Value.of(c.text()));
            }
            return how instanceof Readable r
                    ? p.with("readable", Value.parts("dark", r.dark(), "light", r.light()))
                    : p;
        }

        public String inWords() {
            return how.inWords(key);
        }
    }

    /** What becomes of the value that is followed. */
    sealed interface How {
        String inWords(String key);

        /** @param other a value of the followed setting; colours for all but {@link Same} */
        Value of(Value other);

        /** The other key that it reads, or empty. */
        default Optional<String> alsoReads() {
            return Optional.empty();
        }

        /** @param second the value under {@link #alsoReads} */
        default Value of(Value other, Optional<Value> second) {
            return of(other);
        }
    }

    record Same() implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.same", key);
        }

        @Override
        public Value of(Value other) {
            return other;
        }
    }

    /** @param by percentage points of lightness in OKLCH, more than 0 and up to 100 */
    record Lighter(BigDecimal by) implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.lighter", key, by);
        }

        @Override
        public Value of(Value other) {
            return moved(other, by.doubleValue() / 100);
        }
    }

    /** @param by percentage points of lightness in OKLCH, more than 0 and up to 100 */
    record Darker(BigDecimal by) implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.darker", key, by);
        }

        @Override
        public Value of(Value other) {
            return moved(other, -by.doubleValue() / 100);
        }
    }

    /**
     * Mixed in OKLab, as {@code color-mix(in oklab, …)} does (CSS Color Level 5, section 3).
     *
     * @param with a CSS colour, or the key of a third setting
     * @param share percent of {@code with} in the mixture
     */
    record Mixed(String with, BigDecimal share) implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.mixed", key, share, with);
        }

        @Override
        public Optional<String> alsoReads() {
            return Color.parse(with).isPresent() ? Optional.empty() : Optional.of(with);
        }

        @Override
        public Value of(Value other) {
            return of(other, Optional.empty());
        }

        @Override
        public Value of(Value other, Optional<Value> second) {
            Color b = Color.parse(with).orElseGet(() -> color(second.orElse(other)));
            Color a = color(other);
            Color mixed = Interpolation.mix(a, b, share.doubleValue() / 100, ColorSpace.OKLAB, HueArc.SHORTER);
            return written(mixed, a.to(ColorSpace.SRGB).isInGamut() ? b : a);
        }
    }

    /** @param opacity in percent of the followed colour's own */
    record Translucent(BigDecimal opacity) implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.translucent", key, opacity);
        }

        @Override
        public Value of(Value other) {
            Color c = color(other);
            return written(c.withAlpha(c.alpha() * opacity.doubleValue() / 100), c);
        }
    }

    /** Computed step by step, as a stylesheet preprocessor had it. */
    record Computed(List<ColorStep> steps) implements How {
        public Computed {
            steps = List.copyOf(steps);
        }

        public String text() {
            return steps.stream().map(ColorStep::text).collect(Collectors.joining(", "));
        }

        @Override
        public String inWords(String key) {
            return Language.say("follows.computed", key, text());
        }

        @Override
        public Value of(Value other) {
            return written(of(color(other)), color(other));
        }

        /** The colour after all steps. */
        public Color of(Color color) {
            Color now = color;
            for (ColorStep step : steps) {
                now = step.of(now);
            }
            return now;
        }
    }

    /** Whichever of two colours has the higher contrast with the followed one (WCAG 2.2, contrast ratio). */
    record Readable(String dark, String light) implements How {
        @Override
        public String inWords(String key) {
            return Language.say("follows.readable", key);
        }

        @Override
        public Value of(Value other) {
            Color ground = Contrast.over(color(other), Color.WHITE);
            boolean isDark =
                    Contrast.ratio(ColorKind.parse(dark), ground) >= Contrast.ratio(ColorKind.parse(light), ground);
            return Value.of(ColorKind.canonical(isDark ? dark : light));
        }
    }

    private static Color color(Value v) {
        return v instanceof Value.Text t ? Color.parse(t.text()).orElse(Color.BLACK) : Color.BLACK;
    }

    /** A shade of a colour that every screen shows is one that every screen shows (CSS Color 4, section 13); of another it stays as it is. */
    private static Value written(Color c, Color of) {
        // Rounding may put a colour a hair outside of sRGB, where it would be written in another space.
        Color inside = c.to(ColorSpace.SRGB);
        boolean plain = of.to(ColorSpace.SRGB).isInGamut();
        return Value.of(ColorKey.of(inside.isInGamut() ? inside : plain ? c.toGamut() : c));
    }

    private static Value moved(Value other, double by) {
        Color lch = color(other).to(ColorSpace.OKLCH);
        Color moved =
                new Color(ColorSpace.OKLCH, Math.max(0, Math.min(1, lch.c0() + by)), lch.c1(), lch.c2(), lch.alpha());
        // Screens clip what they cannot show; the setting holds what they show.
        return Value.of(moved.toGamut().hex());
    }

    /** Whether JSON speaks of another setting. */
    static boolean isFollowing(Value v) {
        return v instanceof Value.Parts p && p.has("follows");
    }

    /** @throws BadInputException with the place, if it cannot be understood */
    static Follows follows(JsonEntry e) {
        How how = new Same();
        int ways = 0;
        if (e.has("lighter")) {
            how = new Lighter(percent(e, "lighter"));
            ways++;
        }
        if (e.has("darker")) {
            how = new Darker(percent(e, "darker"));
            ways++;
        }
        if (e.has("opacity")) {
            how = new Translucent(percent(e, "opacity"));
            ways++;
        }
        if (e.has("mixed")) {
            JsonEntry m = e.entry("mixed");
            how = new Mixed(m.text("with"), percent(m, "share"));
            ways++;
        }
        if (e.has("readable")) {
            JsonEntry r = e.entry("readable");
            how = new Readable(
                    ColorKind.canonical(r.optionalText("dark").orElse("#1c1e20")),
                    ColorKind.canonical(r.optionalText("light").orElse("#ffffff")));
            ways++;
        }
        if (e.has("computed")) {
            try {
                how = new Computed(ColorStep.read(e.text("computed")));
            } catch (BadInputException bad) {
                throw JsonEntry.bad(e.at("computed"), bad.getMessage().replaceAll("\\.$", ""), bad.mend());
            }
            ways++;
        }
        if (ways > 1) {
            throw JsonEntry.bad(
                    e.place(),
                    "it follows in more than one way",
                    "Keep one of lighter, darker, mixed, computed, opacity and readable.");
        }
        return new Follows(e.text("follows"), how);
    }

    private static BigDecimal percent(JsonEntry e, String key) {
        BigDecimal n = e.number(key)
                .orElseThrow(() -> JsonEntry.bad(e.at(key), "it is missing", "Write \"" + key + "\": 20."));
        if (n.signum() < 0 || n.doubleValue() > 100) {
            throw JsonEntry.bad(e.at(key), "it lies outside of 0 to 100", "Write \"" + key + "\": 20.");
        }
        return n;
    }
}
