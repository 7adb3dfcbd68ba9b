package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.promise.SafeValues;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.springframework.web.util.HtmlUtils;

/**
 * A setting as its card shows it.
 *
 * @param isNew whether it is still to be made
 * @param def the default
 * @param bands the narrower bands, each with its own default or none
 * @param followable settings of the same kind, which its defaults may follow
 * @param others all other settings, which it may depend on
 */
public record SettingCard(
        Setting setting,
        boolean isNew,
        Default def,
        List<Default> bands,
        List<Setting> followable,
        List<Setting> others,
        String shownIs) {
    /** As the form has it, in place of a key: the owner is never asked. */
    static final String NEVER = "never";

    /**
     * A default in all widths or in one band.
     *
     * @param prefix of the fields
     * @param how own, follow or same
     * @param fields what the control shows
     * @param follows the setting's key that is followed, or empty
     * @param way what becomes of it
     */
    public record Default(
            String prefix,
            String label,
            String widths,
            String how,
            Map<String, String> fields,
            String follows,
            String way,
            String amount,
            String with) {}

    public boolean isNeverAsked() {
        return setting.shown() != null && setting.shown().isNever();
    }

    /** Whether what it does to texts is told. */
    public boolean isJudged() {
        return !isNeverAsked() && (kind() instanceof ColorKind || SafeValues.judges(kind()));
    }

    public Kind kind() {
        return setting.kind();
    }

    public String key() {
        return setting.key();
    }

    /** The settings that a default may follow, as options of a select, ready to be written. */
    public String followOptions(String selected) {
        return options(followable, selected);
    }

    /** The settings that it may depend on, as options of a select. */
    public String otherOptions() {
        return options(others, setting.shown() == null ? "" : setting.shown().key());
    }

    private static String options(List<Setting> settings, String selected) {
        StringBuilder out = new StringBuilder();
        settings.forEach(s -> out.append("<option value=\"")
                .append(HtmlUtils.htmlEscape(s.key()))
                .append(s.key().equals(selected) ? "\" selected>" : "\">")
                .append(HtmlUtils.htmlEscape(s.label()))
                .append("</option>"));
        return out.toString();
    }

    /** The kind that the default is entered with: a maker may take any colour, which then joins the swatches. */
    public Kind entered() {
        return setting.kind() instanceof ColorKind ? ColorKind.ANY : setting.kind();
    }

    /** Colours to take with a click. */
    public List<String> swatches() {
        return setting.kind() instanceof ColorKind c ? c.swatches() : List.of();
    }

    static SettingCard of(Palette palette, Setting s, Effective values, boolean isNew) {
        Bands bands = palette.bands();
        List<Default> narrower = new ArrayList<>();
        for (Band b : bands.list()) {
            if (b != bands.widest()) {
                narrower.add(shown(
                        "b." + b.key(),
                        b.label(),
                        bands.inWords(b),
                        s.bands().get(b.key()),
                        s.kind(),
                        values.value(s, b)));
            }
        }
        String is = s.shown() == null
                ? ""
                : String.join(
                        ", ",
                        s.shown().is().stream()
                                .map(v -> palette.setting(s.shown().key())
                                        .map(o -> o.kind().name().equals("yes-no")
                                                ? o.kind().words(v)
                                                : v instanceof Value.Text t
                                                        ? t.text()
                                                        : v.json().toString())
                                        .orElse(""))
                                .toList());
        return new SettingCard(
                s,
                isNew,
                shown("v", "Default", "", s.given(), s.kind(), values.value(s, bands.widest())),
                narrower,
                palette.settings().stream()
                        .filter(o -> !o.key().equals(s.key())
                                && o.kind().name().equals(s.kind().name()))
                        .toList(),
                palette.settings().stream()
                        .filter(o -> !o.key().equals(s.key()))
                        .toList(),
                is);
    }

    private static Default shown(String prefix, String label, String widths, Given given, Kind kind, Value value) {
        Map<String, String> fields = kind.fields(value);
        if (!(given instanceof Given.Follows f)) {
            return new Default(prefix, label, widths, given == null ? "same" : "own", fields, "", "same", "", "");
        }
        Given.How how = f.how();
        String way = how instanceof Given.Lighter
                ? "lighter"
                : how instanceof Given.Darker
                        ? "darker"
                        : how instanceof Given.Mixed
                                ? "mixed"
                                : how instanceof Given.Translucent
                                        ? "opacity"
                                        : how instanceof Given.Readable
                                                ? "readable"
                                                : how instanceof Given.Computed ? "computed" : "same";
        BigDecimal amount = how instanceof Given.Lighter l
                ? l.by()
                : how instanceof Given.Darker d
                        ? d.by()
                        : how instanceof Given.Mixed m
                                ? m.share()
                                : how instanceof Given.Translucent t ? t.opacity() : null;
        return new Default(
                prefix,
                label,
                widths,
                "follow",
                fields,
                f.key(),
                way,
                amount == null ? "" : amount.toPlainString(),
                how instanceof Given.Mixed m ? m.with() : how instanceof Given.Computed c ? c.text() : "");
    }
}
