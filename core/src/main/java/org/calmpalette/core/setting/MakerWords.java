package org.calmpalette.core.setting;

import java.util.Locale;

/** Refusals as makers read them: with keys, paths and numbers, since they set the limits. */
public class MakerWords implements Refusal.Words {
    static final MakerWords PLAIN = new MakerWords();

    @Override
    public String outOfRange(Refusal.OutOfRange r) {
        return Range.plain(r.value()) + r.unit() + " is outside of " + r.range().inWords(r.unit()) + ".";
    }

    @Override
    public String offStep(Refusal.OffStep r) {
        return Range.plain(r.value()) + r.unit() + " is not on a step of " + Range.plain(r.step()) + r.unit()
                + (r.first().remainder(r.step()).signum() == 0
                        ? "."
                        : " from " + Range.plain(r.first()) + r.unit() + ".");
    }

    @Override
    public String notAmong(Refusal.NotAmong r) {
        String all = String.join(", ", r.allowed());
        return switch (r.what()) {
            case OPTIONS -> "“" + r.value() + "” is not among what may be chosen: " + all + ".";
            case SWATCHES -> "Only these colours may be chosen here: " + all + ".";
            case STEPS -> "Only these steps may be chosen here: " + all + ".";
            case UNITS -> "Only " + all + " may be chosen here, not " + r.value() + ".";
            case SHAPES -> "It has to be " + String.join(" or ", r.allowed()) + ".";
        };
    }

    @Override
    public String missing(Refusal.Missing r) {
        return r.what().isEmpty() ? "One has to be chosen here." : "There has to be a " + r.what() + " here.";
    }

    @Override
    public String itemCount(Refusal.ItemCount r) {
        return r.count() < r.least()
                ? "There " + (r.least() == 1 ? "has to be 1 item" : "have to be " + r.least() + " items")
                        + ", and there " + (r.count() == 1 ? "is 1." : "are " + r.count() + ".")
                : "There may be " + r.most() + " items, and there are " + r.count() + ".";
    }

    @Override
    public String stays(Refusal.Stays r) {
        return r.part() + " stays " + r.value() + ".";
    }

    @Override
    public String inPart(Refusal.InPart r) {
        return r.part() + ": " + r.why().said(this);
    }

    @Override
    public String colorBeyond(Refusal.ColorBeyond r) {
        String unit = unit(r);
        int places = r.component() == Refusal.Component.CHROMA ? 3 : r.component() == Refusal.Component.HUE ? 0 : 1;
        return "Its " + r.component().name().toLowerCase(Locale.ROOT) + " is " + ColorKind.round(r.value(), places)
                + unit + ", allowed is " + r.allowed().inWords(unit) + ".";
    }

    static String unit(Refusal.ColorBeyond r) {
        return switch (r.component()) {
            case LIGHTNESS -> "%";
            case CHROMA -> "";
            case HUE -> "°";
        };
    }

    @Override
    public String translucent(Refusal.Translucent r) {
        return "Only an opaque colour may be chosen here.";
    }

    @Override
    public String lowContrast(Refusal.LowContrast r) {
        return "Beside " + (r.isSetting() ? "“" + r.with() + "”, which is " + ColorKey.of(r.other()) + "," : r.with())
                + " its contrast is " + ratio(r) + " to 1; " + Range.plain(r.needed()) + " is needed.";
    }

    /** Cut, not rounded: what is shown as enough has to be enough. */
    static String ratio(Refusal.LowContrast r) {
        return ColorKind.round(Math.floor(r.ratio() * 100) / 100, 2);
    }

    @Override
    public String tooMany(Refusal.TooMany r) {
        return "It has " + r.count() + " colours; at most " + r.most() + " may be chosen.";
    }

    @Override
    public String length(Refusal.Length r) {
        if (r.characters() == 0) {
            return "It may not be empty.";
        }
        return "It has " + r.characters() + " characters; "
                + (r.characters() < r.least()
                        ? "at least " + r.least() + " are needed."
                        : "at most " + r.most() + " fit.");
    }

    @Override
    public String notLinked(Refusal.NotLinked r) {
        return "“" + brief(r.target()) + "” is not among what may be linked here: " + r.allowed() + ".";
    }

    @Override
    public String noPage(Refusal.NoPage r) {
        return "The theme has no page “" + brief(r.path()) + "”.";
    }

    private static String brief(String text) {
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }

    /** How a file is called. */
    protected String file(String path) {
        return path;
    }

    @Override
    public String noFile(Refusal.NoFile r) {
        return "There is no file " + file(r.path()) + " in the theme.";
    }

    @Override
    public String format(Refusal.Format r) {
        return file(r.path()) + " is a ." + r.format() + " file; allowed are " + String.join(", ", r.allowed()) + ".";
    }

    @Override
    public String tooHeavy(Refusal.TooHeavy r) {
        return file(r.path()) + " weighs " + PictureKind.size(r.bytes()) + "; at most " + PictureKind.size(r.most())
                + " load quickly enough.";
    }

    @Override
    public String noSize(Refusal.NoSize r) {
        return "The size of " + file(r.path()) + " cannot be read.";
    }

    @Override
    public String tooSmall(Refusal.TooSmall r) {
        return file(r.path()) + " is " + r.width() + " by " + r.height() + " px; it would blur. "
                + (r.leastHeight() == 0
                        ? r.leastWidth() + " px of width"
                        : r.leastWidth() + " by " + r.leastHeight() + " px")
                + " are needed.";
    }

    @Override
    public String wrongShape(Refusal.WrongShape r) {
        return file(r.path()) + " is " + r.width() + " by " + r.height() + " px, too " + (r.tooHigh() ? "high" : "wide")
                + " for its width or height; the shape has to be " + (r.tooHigh() ? "at least " : "at most ")
                + Range.plain(r.bound()) + " (width divided by height).";
    }

    @Override
    public String noSetting(Refusal.NoSetting r) {
        return "The theme has no setting with this key.";
    }

    @Override
    public String noBand(Refusal.NoBand r) {
        return "The theme has no band “" + r.key() + "”.";
    }

    @Override
    public String notByBand(Refusal.NotByBand r) {
        return "It may not differ from band to band.";
    }

    @Override
    public String unreadable(Refusal.Unreadable r) {
        return r.why();
    }
}
