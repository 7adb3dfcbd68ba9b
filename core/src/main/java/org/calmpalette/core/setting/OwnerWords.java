package org.calmpalette.core.setting;

/** Refusals as owners read them: with the labels of settings and what to take instead, without keys, folders and colour terms. */
public final class OwnerWords extends MakerWords {
    private final Palette palette;

    public OwnerWords(Palette palette) {
        this.palette = palette;
    }

    @Override
    public String notAmong(Refusal.NotAmong r) {
        return r.what() == Refusal.Listed.OPTIONS
                ? "One of these may be chosen here: " + String.join(", ", r.labels()) + "."
                : super.notAmong(r);
    }

    @Override
    public String colorBeyond(Refusal.ColorBeyond r) {
        boolean below = r.value() < r.allowed().from().doubleValue();
        return switch (r.component()) {
            case LIGHTNESS ->
                below ? "It is too dark here; take a lighter one." : "It is too light here; take a darker one.";
            case CHROMA ->
                below ? "It is too grey here; take a stronger one." : "It is too strong here; take a greyer one.";
            case HUE ->
                "It is too far from the colours that go here: its hue is " + ColorKind.round(r.value(), 0) + "°, and "
                        + r.allowed().inWords("°") + " may be chosen.";
        };
    }

    @Override
    public String translucent(Refusal.Translucent r) {
        return "It lets through what is behind it; only a solid colour may be chosen here.";
    }

    @Override
    public String lowContrast(Refusal.LowContrast r) {
        String other = r.isSetting()
                ? "“" + palette.setting(r.with()).map(Setting::label).orElse(r.with()) + "”, which is "
                        + ColorKey.of(r.other()) + ","
                : ColorKey.of(r.other());
        return "Beside " + other + " it is hard to tell apart: contrast " + ratio(r) + " to 1, and "
                + Range.plain(r.needed()) + " is needed.";
    }

    @Override
    protected String file(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    @Override
    public String wrongShape(Refusal.WrongShape r) {
        return file(r.path()) + " is " + r.width() + " by " + r.height() + " px, too "
                + (r.tooHigh()
                        ? "high for its width; take a broader one."
                        : "broad for its height; take a higher one.");
    }

    @Override
    public String noSetting(Refusal.NoSetting r) {
        return "The theme does not ask for it any more.";
    }

    @Override
    public String noBand(Refusal.NoBand r) {
        return "The theme does not tell that window width apart any more.";
    }

    @Override
    public String notByBand(Refusal.NotByBand r) {
        return "It is the same at every window width now.";
    }
}
