package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorStep;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;

/** What a maker enters for a setting: on its card, when a value is lifted, and when a part is bound. */
public record SettingForm(Fields fields) {

    /**
     * The setting as it was entered. What the form has no field for stays as it is.
     *
     * @param before the setting as it is, or null for a new one
     * @throws BadInputException if something cannot be used; the message names the part
     */
    public Setting setting(Palette palette, Setting before) {
        String name = before == null ? fields.text("kind") : before.kind().name();
        Value.Parts limits = before == null ? limits(name) : before.kind().allowed();
        Kind reading = before == null ? Kinds.read(name, open(name, limits)) : before.kind();
        Given given = given(reading, "v", "Default");
        Value value = given instanceof Given.Fixed f ? reading.normal(f.value()) : null;
        Kind kind = AllowedForm.read(name, fields, limits, value);
        Map<String, Given> bands = new LinkedHashMap<>();
        for (Band band : palette.bands().list()) {
            String prefix = "b." + band.key();
            if (band == palette.bands().widest()) {
                continue;
            }
            if (!fields.has(prefix + ".how") && before != null && before.bands().containsKey(band.key())) {
                bands.put(band.key(), before.bands().get(band.key()));
            } else if (fields.has(prefix + ".how")
                    && !fields.text(prefix + ".how").equals("same")) {
                bands.put(band.key(), given(reading, prefix, "Default for " + band.label()));
            }
        }
        boolean perBand = fields.has("perBand.given") ? fields.has("perBand") : before != null && before.perBand();
        Setting.Shown shown = fields.has("shown.key") ? shown(palette) : before == null ? null : before.shown();
        return new Setting(
                fields.text("key"),
                fields.text("label"),
                fields.text("help"),
                place(palette).key(),
                kind,
                given,
                bands,
                perBand,
                shown,
                before != null && before.triple(),
                before == null ? List.of() : before.drawings(),
                before == null ? List.of() : before.former());
    }

    /** Limits that a form sends along for a kind that means nothing without them, or that were proposed. */
    private Value.Parts limits(String kind) {
        return kind.equals("choice") && !fields.has("a.given")
                ? Kinds.plain("choice").allowed()
                : Value.parts();
    }

    private Value.Parts open(String kind, Value.Parts limits) {
        return kind.equals("choice")
                ? AllowedForm.read("choice", fields, limits, null).allowed()
                : limits;
    }

    private Given given(Kind kind, String prefix, String which) {
        try {
            if (fields.text(prefix + ".how").equals("follow")) {
                return follows(prefix + ".f");
            }
            return new Given.Fixed(kind.read(fields.of(prefix)));
        } catch (BadInputException e) {
            throw new BadInputException(which + ": " + e.getMessage(), e.mend());
        }
    }

    private Given follows(String prefix) {
        String key = fields.text(prefix + ".key");
        if (key.isEmpty()) {
            throw new BadInputException(
                    "It is to follow another setting, but none is named.", "Choose one, or give a value.");
        }
        BigDecimal amount = fields.number(prefix + ".amount");
        String way = fields.text(prefix + ".way");
        boolean counts = !way.equals("same") && !way.equals("readable") && !way.equals("computed") && !way.isEmpty();
        if (counts && (amount == null || amount.signum() < 0 || amount.intValue() > 100)) {
            throw new BadInputException("By how much is missing, or not from 0 to 100.", "Write a number such as 12.");
        }
        Given.How how =
                switch (way) {
                    case "lighter" -> new Given.Lighter(amount);
                    case "darker" -> new Given.Darker(amount);
                    case "opacity" -> new Given.Translucent(amount);
                    case "mixed" -> mixed(fields.text(prefix + ".with"), amount);
                    case "computed" -> new Given.Computed(ColorStep.read(fields.text(prefix + ".with")));
                    case "readable" -> new Given.Readable("#1c1e20", "#ffffff");
                    default -> new Given.Same();
                };
        return new Given.Follows(key, how);
    }

    private static Given.How mixed(String with, BigDecimal share) {
        if (with.isEmpty()) {
            throw new BadInputException(
                    "What it is mixed with is missing.", "Write a colour, or the key of another colour setting.");
        }
        return new Given.Mixed(
                Color.parse(with).isPresent() ? org.calmpalette.core.setting.ColorKind.canonical(with) : with, share);
    }

    private Setting.Shown shown(Palette palette) {
        String key = fields.text("shown.key");
        if (key.isEmpty()) {
            return null;
        }
        if (key.equals(SettingCard.NEVER)) {
            return Setting.Shown.NEVER;
        }
        Kind kind = palette.known(key).kind();
        List<Value> is = new ArrayList<>();
        for (String text : fields.text("shown.is").split("\\s*,\\s*")) {
            if (text.isEmpty()) {
                continue;
            }
            Value v =
                    switch (kind.name()) {
                        case "yes-no" -> Value.of(text.equals("yes") || text.equals("true"));
                        case "number", "percentage", "level" ->
                            Value.of(new Fields(Map.of("n", new String[] {text})).number("n"));
                        default -> Value.of(text);
                    };
            is.add(kind.normal(v));
        }
        if (is.isEmpty()) {
            throw new BadInputException(
                    "It is to be asked for depending on “" + palette.known(key).label()
                            + "”, but for which value is missing.",
                    "Write the value, such as yes; several with commas between.");
        }
        return new Setting.Shown(key, is);
    }

    /** The place by its label: one that is there, or a new one. */
    public Place place(Palette palette) {
        return place(palette, fields.text("place"));
    }

    public static Place place(Palette palette, String name) {
        return palette.placeCalled(name);
    }

    public String key() {
        return fields.text("key");
    }
}
