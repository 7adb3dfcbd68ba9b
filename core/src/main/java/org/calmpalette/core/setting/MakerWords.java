package org.calmpalette.core.setting;

import java.util.Locale;
import org.calmpalette.core.language.Language;

/** Refusals as makers read them: with keys, paths and numbers, since they set the limits. */
public class MakerWords implements Refusal.Words {
    static final MakerWords PLAIN = new MakerWords();

    @Override
    public String outOfRange(Refusal.OutOfRange r) {
        return Language.say("refused.range", r.value(), r.unit(), r.range().inWords(r.unit()));
    }

    @Override
    public String offStep(Refusal.OffStep r) {
        return r.first().remainder(r.step()).signum() == 0
                ? Language.say("refused.step", r.value(), r.unit(), r.step())
                : Language.say("refused.step.from", r.value(), r.unit(), r.step(), r.first());
    }

    @Override
    public String notAmong(Refusal.NotAmong r) {
        String all = String.join(", ", r.allowed());
        return switch (r.what()) {
            case OPTIONS -> Language.say("refused.option", r.value(), all);
            case SWATCHES -> Language.say("refused.swatches", all);
            case STEPS -> Language.say("refused.steps", all);
            case UNITS -> Language.say("refused.units", all, r.value());
            case SHAPES ->
                Language.say(
                        "refused.shapes",
                        r.allowed().stream()
                                .reduce((a, b) -> Language.say("allowed.or", a, b))
                                .orElse(""));
        };
    }

    @Override
    public String missing(Refusal.Missing r) {
        return Language.say(r.what().isEmpty() ? "refused.missing" : "refused.missing." + r.what());
    }

    @Override
    public String itemCount(Refusal.ItemCount r) {
        return r.count() < r.least()
                ? Language.say("refused.few-items", r.least(), r.count())
                : Language.say("refused.many-items", r.most(), r.count());
    }

    @Override
    public String stays(Refusal.Stays r) {
        return Language.say("refused.stays", r.part(), r.value());
    }

    @Override
    public String inPart(Refusal.InPart r) {
        return Language.say("refused.part", r.part(), r.why().said(this));
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
        return Language.say("refused.many-colours", r.count(), r.most());
    }

    @Override
    public String length(Refusal.Length r) {
        if (r.characters() == 0) {
            return Language.say("refused.empty");
        }
        return r.characters() < r.least()
                ? Language.say("refused.short", r.characters(), r.least())
                : Language.say("refused.long", r.characters(), r.most());
    }

    @Override
    public String notLinked(Refusal.NotLinked r) {
        return Language.say("refused.link", brief(r.target()), r.allowed());
    }

    @Override
    public String noPage(Refusal.NoPage r) {
        return Language.say("refused.page", brief(r.path()));
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
        return Language.say("refused.file", file(r.path()));
    }

    @Override
    public String format(Refusal.Format r) {
        return Language.say("refused.format", file(r.path()), r.format(), String.join(", ", r.allowed()));
    }

    @Override
    public String tooHeavy(Refusal.TooHeavy r) {
        return Language.say("refused.heavy", file(r.path()), PictureKind.size(r.bytes()), PictureKind.size(r.most()));
    }

    @Override
    public String noSize(Refusal.NoSize r) {
        return Language.say("refused.no-size", file(r.path()));
    }

    @Override
    public String tooSmall(Refusal.TooSmall r) {
        return r.leastHeight() == 0
                ? Language.say("refused.small", file(r.path()), r.width(), r.height(), r.leastWidth())
                : Language.say(
                        "refused.small.both", file(r.path()), r.width(), r.height(), r.leastWidth(), r.leastHeight());
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
