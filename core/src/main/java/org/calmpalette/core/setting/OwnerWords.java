package org.calmpalette.core.setting;

import java.math.BigDecimal;
import org.calmpalette.core.language.Language;

/** Refusals as owners read them: with the labels of settings and what to take instead, without keys, folders and colour terms. */
public final class OwnerWords extends MakerWords {
    private final Palette palette;

    public OwnerWords(Palette palette) {
        this.palette = palette;
    }

    @Override
    public String notAmong(Refusal.NotAmong r) {
        return r.what() == Refusal.Listed.OPTIONS
                ? Language.say("refused.alike", String.join(", ", r.labels()))
                : super.notAmong(r);
    }

    @Override
    public String colorBeyond(Refusal.ColorBeyond r) {
        boolean below = r.value() < r.allowed().from().doubleValue();
        return switch (r.component()) {
            case LIGHTNESS -> Language.say(below ? "refused.too-dark" : "refused.too-light");
            case CHROMA -> Language.say(below ? "refused.too-grey" : "refused.too-strong");
            case HUE ->
                Language.say(
                        "refused.hue",
                        ColorKind.round(r.value(), 0),
                        r.allowed().inWords("°"));
        };
    }

    @Override
    public String translucent(Refusal.Translucent r) {
        return Language.say("refused.lets-through");
    }

    @Override
    public String lowContrast(Refusal.LowContrast r) {
        String other = r.isSetting()
                ? Language.say(
                        "refused.contrast.setting",
                        palette.setting(r.with()).map(Setting::label).orElse(r.with()),
                        ColorKey.of(r.other()))
                : ColorKey.of(r.other());
        return Language.say("refused.contrast", other, new BigDecimal(ratio(r)), r.needed());
    }

    @Override
    protected String file(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    @Override
    public String wrongShape(Refusal.WrongShape r) {
        return Language.say(
                r.tooHigh() ? "refused.too-high" : "refused.too-broad", file(r.path()), r.width(), r.height());
    }

    @Override
    public String noSetting(Refusal.NoSetting r) {
        return Language.say("refused.not-asked");
    }

    @Override
    public String noBand(Refusal.NoBand r) {
        return Language.say("refused.no-width");
    }

    @Override
    public String notByBand(Refusal.NotByBand r) {
        return Language.say("refused.same-width");
    }
}
