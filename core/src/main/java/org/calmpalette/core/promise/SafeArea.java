package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * The colours of one setting with which every text can be read that it paints or lies behind: whatever else is chosen of what is allowed,
 * or as all else is now. What is said to be safe is proved; what is not may be unproved only.
 *
 * <p>Where nothing but the luminance of a colour counts, the safe luminances are found once, exact to {@value #CLOSE}, and a colour is
 * looked up among them; where it is mixed with others, each colour is decided by itself.
 */
public final class SafeArea {
    private static final double CLOSE = 1e-6;
    private static final int LIGHTNESSES = 40;
    private static final int HALVINGS = 10;
    /** Texts, each in a band, that are looked at with the whole cascade: far more than colours alone decide it costs. */
    private static final int MOST_LOOKS = 200;

    /**
     * The texts of a theme, as far as their colours can be told. Dear to make, since all pages are read; every setting's area comes from
     * the same.
     */
    public static final class Texts {
        private final Theme theme;
        private final List<Asked> asked;

        private Texts(Theme theme, List<Asked> asked) {
            this.theme = theme;
            this.asked = asked;
        }

        public static Texts of(Theme theme) {
            return new Texts(theme, Readable.questions(theme));
        }

        Theme theme() {
            return theme;
        }

        /** The same texts, of a theme that differs in what may be chosen alone. */
        Texts on(Theme limited) {
            return new Texts(limited, asked);
        }

        /** The area that is safe whatever else is chosen. @param setting a colour of this theme */
        public SafeArea around(Setting setting) {
            return new SafeArea(this, setting, null);
        }

        /**
         * The texts that cannot be read as everything is, in each band anew, since each may have values of its own; each as often as it is
         * found. Where choices of other kinds take part, as a share of opacity or a colour that is one of several words, it is looked
         * at with the whole cascade. What layout decides is not told.
         */
        public List<Met> hardToRead(Effective now) {
            Proof proof = proof(now);
            List<Met> all = new ArrayList<>();
            for (Asked a : asked) {
                a.bands().forEach((band, width) -> {
                    Budget.longStep();
                    if (isByColors(proof, a, band)) {
                        all.add(met(a, width, proof.least(a.letters(), a.under(), a.needed(), band)));
                    }
                });
            }
            Looking looking = new Looking(theme, now.choices());
            loose(proof).forEach(l -> all.add(met(l.asked, l.width, l.seen(looking))));
            all.removeIf(m -> m.ratio() <= 0 || m.ratio() >= m.needed());
            return all;
        }

        private Proof proof(Effective now) {
            return new Proof(theme, (s, band) -> asNow(Domain.of(s, band), now, band));
        }

        private static boolean isByColors(Proof proof, Asked a, Band band) {
            return a.why().isEmpty() && proof.isExact(a.letters(), a.under(), band);
        }

        /** The texts that colours do not decide by themselves, in each band, up to {@value #MOST_LOOKS}. */
        List<Loose> loose(Effective now) {
            return loose(proof(now));
        }

        private List<Loose> loose(Proof proof) {
            return asked.stream()
                    .flatMap(a -> a.bands().entrySet().stream()
                            .filter(there -> !isByColors(proof, a, there.getKey()))
                            .map(there -> new Loose(a, there.getValue())))
                    .limit(MOST_LOOKS)
                    .toList();
        }

        /** The area that is safe while all else is as it is. */
        public SafeArea around(Setting setting, Effective now) {
            return new SafeArea(this, setting, now);
        }
    }

    /**
     * What a colour does to a text.
     *
     * @param words of the text, shortened; may be empty
     * @param page path of the page
     * @param pseudoClass the state it is in, such as hover; empty at rest
     * @param dark whether visitors alone meet it who prefer a dark scheme
     * @param what of the part has to be seen
     * @param width of a window in px in which it is so
     * @param ratio contrast that is kept, 1 to 21; 0 if it cannot be told
     * @param needed by WCAG 2.2, 1.4.3 or 1.4.11
     */
    public record Met(
            String words,
            String page,
            String pseudoClass,
            boolean dark,
            Perceivable what,
            int width,
            double ratio,
            double needed) {}

    /** A text in a band, with a width of it in px. */
    record Loose(Asked asked, int width) {
        /** Its contrast as the whole cascade has it; 0 where that is not known, or the text is not shown. */
        double seen(Looking looking) {
            Budget.longStep();
            return looking.ratio(asked, width)
                    .filter(r -> looking.isShown(asked, width))
                    .orElse(0.0);
        }

        Met met(double ratio) {
            return SafeArea.met(asked, width, ratio);
        }
    }

    /** One text, with the luminances that keep it where they alone count; else null. */
    private record Text(Asked asked, List<double[]> luminances) {}

    private final Theme theme;
    private final Setting setting;
    private final Effective others;
    private final List<Text> texts = new ArrayList<>();
    private final List<Asked> regardless = new ArrayList<>();
    private List<Asked> limitable;

    private SafeArea(Texts all, Setting setting, Effective others) {
        this.theme = all.theme;
        this.setting = setting;
        this.others = others;
        for (Asked a : all.asked) {
            Budget.longStep();
            if (a.why().isEmpty() && isMet(a)) {
                Text text = new Text(a, luminances(a));
                boolean may =
                        text.luminances == null ? probes().anyMatch(c -> keeps(text, c)) : !text.luminances.isEmpty();
                if (may) {
                    texts.add(text);
                } else {
                    regardless.add(a);
                }
            }
        }
    }

    private boolean isMet(Asked a) {
        return new Proof(theme).followed(a.letters(), a.under(), a.band()).contains(setting.key())
                && bands(a).stream().anyMatch(b -> Domain.of(setting, b).mayBeChosen());
    }

    /** The bands in which the colour counts for a text; whatever else is chosen, one stands for all that are made alike. */
    private List<Band> bands(Asked a) {
        return others == null
                ? List.of(a.band())
                : a.bands().keySet().stream()
                        .filter(b -> others.source(setting, b) != Effective.Source.OWNER_BAND)
                        .toList();
    }

    /** Texts that the colour has to do with. */
    public int count() {
        return texts.size() + regardless.size();
    }

    /** Texts that no colour of this setting is proved to keep: other colours decide them, or layout does. */
    public List<String> regardless() {
        return regardless.stream().map(Asked::words).distinct().toList();
    }

    private Proof with(Color c) {
        return new Proof(theme, (s, band) -> {
            Domain d = Domain.of(s, band);
            if (s.key().equals(setting.key())) {
                boolean elsewhere = others != null && others.source(s, band) == Effective.Source.OWNER_BAND;
                return elsewhere ? asNow(d, others, band) : d.mayBeChosen() ? d.settledOn(c) : d;
            }
            return others == null ? d : asNow(d, others, band);
        });
    }

    /** What is chosen, or else what is made, which may follow another one. */
    private static Domain asNow(Domain d, Effective others, Band band) {
        Effective.Source source = others.source(d.setting(), band);
        return source == Effective.Source.OWNER || source == Effective.Source.OWNER_BAND
                ? d.madeAs(ColorKind.parse(((Value.Text) others.value(d.setting(), band)).text()))
                : d.unchosen();
    }

    private double ratio(Asked a, Color c) {
        Proof with = with(c);
        return bands(a).stream()
                .mapToDouble(b -> with.least(a.letters(), a.under(), a.needed(), b))
                .min()
                .orElse(0);
    }

    private boolean keeps(Text text, Color c) {
        Budget.step();
        if (text.luminances != null && c.isOpaque()) {
            double y = Contrast.relativeLuminance(c);
            for (double[] i : text.luminances) {
                // At the border itself it is decided by itself.
                if (Math.min(Math.abs(y - i[0]), Math.abs(y - i[1])) < 2 * CLOSE) {
                    return ratio(text.asked, c) >= text.asked.needed();
                }
                if (y > i[0] && y < i[1]) {
                    return true;
                }
            }
            return false;
        }
        return ratio(text.asked, c) >= text.asked.needed();
    }

    /** Whether every text is kept with a colour, but for those that no colour keeps. */
    public boolean keeps(Color c) {
        return texts.stream().allMatch(t -> keeps(t, c));
    }

    /** Every text that the area has to do with, as the setting is made. */
    List<Met> all() {
        Domain made = Domain.of(setting, theme.palette().bands().widest());
        return texts.stream()
                .map(t -> met(t.asked, ratio(t.asked, made.samples().get(0))))
                .toList();
    }

    /** The text that a colour does worst to, in proportion to what it needs; empty if it has to do with none. */
    public Optional<Met> worst(Color c) {
        return texts.stream()
                .map(t -> met(t.asked, ratio(t.asked, c)))
                .min(Comparator.comparingDouble(m -> m.ratio() / m.needed()));
    }

    private static Met met(Asked a, double ratio) {
        return met(a, a.width(), ratio);
    }

    private static Met met(Asked a, int width, double ratio) {
        return new Met(
                a.words(), a.page().source().file(), a.pseudoClass(), a.dark(), a.what(), width, ratio, a.needed());
    }

    /** Whether something that may be chosen today, of this setting or of others, makes a text hard to read that limits can keep. */
    public boolean isBrokenBySomeChoice() {
        return limitable().stream().anyMatch(a -> !isKeptToday(a));
    }

    private boolean isKeptToday(Asked a) {
        return new Proof(theme).keeps(a.letters(), a.under(), a.needed(), a.band());
    }

    /** The texts of the area, and those that another setting can always break, as long as neither asks anything of the other. */
    private List<Asked> limitable() {
        if (limitable == null) {
            limitable = new ArrayList<>(texts.stream().map(Text::asked).toList());
            regardless.stream()
                    .filter(a -> !isKeptToday(a)
                            && new Limiting(theme, List.of(a))
                                    .demand(List.of(setting))
                                    .isPresent())
                    .forEach(limitable::add);
        }
        return limitable;
    }

    /**
     * The widest limits with which every text is kept that limits of this setting can keep, each tried: contrasts that are demanded, the
     * swatches that are safe, a span of lightness. Empty if nothing that may be chosen is unsafe, or if its default is.
     */
    public List<Mend> limits() {
        if (!isBrokenBySomeChoice()) {
            return List.of();
        }
        Limiting limiting = new Limiting(theme, limitable());
        List<Mend> all = new ArrayList<>();
        limiting.demand(List.of(setting)).ifPresent(all::add);
        safeSwatches(limiting).ifPresent(all::add);
        limiting.narrower(setting).ifPresent(all::add);
        return all;
    }

    private Optional<Mend> safeSwatches(Limiting limiting) {
        ColorKind kind = (ColorKind) setting.kind();
        List<String> safe =
                kind.swatches().stream().filter(s -> keeps(ColorKind.parse(s))).toList();
        Setting fewer = setting.withKind(kind.withSwatches(safe));
        return safe.isEmpty() || safe.size() == kind.swatches().size() || !limiting.isKeptWith(fewer)
                ? Optional.empty()
                : Limiting.offer(
                        theme,
                        "Take "
                                + String.join(
                                        ", ",
                                        kind.swatches().stream()
                                                .filter(s -> !safe.contains(s))
                                                .toList())
                                + " out of the swatches of “" + setting.label() + "”",
                        safe.size() + " of " + kind.swatches().size() + " swatches are left.",
                        List.of(fewer));
    }

    private Stream<Color> probes() {
        return Stream.concat(
                Stream.iterate(0, i -> i <= 16, i -> i + 1).map(i -> Color.rgb(i / 16.0, i / 16.0, i / 16.0)),
                Domain.of(setting, theme.palette().bands().widest()).samples().stream()
                        .filter(Color::isOpaque));
    }

    /** From and to, rising; null where channels count too. */
    private List<double[]> luminances(Asked a) {
        Proof with = with(Color.BLACK);
        if (!bands(a).stream().allMatch(b -> with.isByLuminance(a.letters(), a.under(), b, setting.key()))) {
            return null;
        }
        return spans(0, 1, 256, 14, y -> ratio(a, grey(y)) >= a.needed());
    }

    /** @param luminance relative, 0 to 1 */
    private static Color grey(double luminance) {
        return new Color(ColorSpace.SRGB_LINEAR, luminance, luminance, luminance, 1).toGamut();
    }

    /** Where something holds between two numbers: looked at in steps, and halved between two that differ. */
    private static List<double[]> spans(double from, double to, int steps, int halvings, Predicate<Double> holds) {
        List<double[]> all = new ArrayList<>();
        double start = holds.test(from) ? from : Double.NaN;
        double last = from;
        for (int i = 1; i <= steps; i++) {
            double at = from + (to - from) * i / steps;
            boolean now = holds.test(at);
            if (now == Double.isNaN(start)) {
                double out = now ? last : at;
                double in = now ? at : last;
                for (int k = 0; k < halvings; k++) {
                    double middle = (out + in) / 2;
                    if (holds.test(middle)) {
                        in = middle;
                    } else {
                        out = middle;
                    }
                }
                if (now) {
                    start = in;
                } else {
                    all.add(new double[] {start, in});
                    start = Double.NaN;
                }
            }
            last = at;
        }
        if (!Double.isNaN(start)) {
            all.add(new double[] {start, to});
        }
        return all;
    }

    /**
     * The area in a field of colours as CSS's {@code hsl()} has them (CSS Color 4, section 7), with one saturation.
     *
     * @param columns one for each hue, evenly from 0 to 360 degrees: the lightnesses that are safe, each from and to in percent, rising
     */
    public record Field(int saturation, List<List<double[]>> columns) {}

    /**
     * @param saturation 0 to 100 percent
     * @param columns at least 2
     */
    public Field field(int saturation, int columns) {
        return field(saturation, columns, this::keeps);
    }

    /** Where anything holds of colours. */
    public static Field field(int saturation, int columns, Predicate<Color> holds) {
        List<List<double[]>> all = new ArrayList<>();
        for (int i = 0; i < columns; i++) {
            double hue = 360.0 * i / (columns - 1);
            all.add(spans(0, 100, LIGHTNESSES, HALVINGS, l -> holds.test(at(hue, saturation, l))));
        }
        return new Field(saturation, all);
    }

    /** A colour of the field, as it is written: in eight bits a channel. */
    static Color at(double hue, double saturation, double lightness) {
        int[] rgb = new Color(ColorSpace.HSL, hue, saturation, lightness, 1).bytes();
        return Color.rgb(rgb[0] / 255.0, rgb[1] / 255.0, rgb[2] / 255.0);
    }
}
