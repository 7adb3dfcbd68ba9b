package org.calmpalette.app.settings;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.output.SettingSheets;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;

/**
 * What the previews get while a value is tried: nothing is kept.
 *
 * @param css by the band's key, with addresses that hold in a preview
 * @param fills what bound parts get, by the band's key
 * @param refusal why the value may not be chosen, or empty
 * @param candidates stylesheets for the colours that may be chosen, by colour, to judge each before it is chosen
 * @param now the colour that is tried, as it is written among the candidates; empty for other kinds
 * @param probes two stylesheets that differ in this colour alone: what differs under them depends on it
 */
public record Trial(
        Map<String, String> css,
        Map<String, List<Fill>> fills,
        String refusal,
        String mend,
        Map<String, String> candidates,
        List<String> probes,
        String now) {

    /** One bound part: the attribute, the setting's key, and the value as a script can use it. */
    public record Fill(String attribute, String key, String text, String poster) {}

    public static Trial refused(String refusal, String mend) {
        return new Trial(Map.of(), Map.of(), refusal, mend, Map.of(), List.of(), "");
    }

    /**
     * @param address of the previews, without a path
     * @param with the values if the setting in question were another colour
     */
    public static Trial of(
            Effective values, String address, String refusal, Setting setting, Function<Value, Effective> with) {
        Map<String, String> css = new LinkedHashMap<>();
        Map<String, List<Fill>> fills = new LinkedHashMap<>();
        for (Band band : values.palette().bands().list()) {
            css.put(band.key(), css(values, band, address));
            List<Fill> here = new ArrayList<>();
            BoundPage.fills(values, band).forEach(f -> here.add(fill(values, f, address)));
            fills.put(band.key(), here);
        }
        Colors colors = setting != null && setting.kind() instanceof ColorKind
                ? Colors.of(values, address, setting, false, with)
                : Colors.NONE;
        return new Trial(css, fills, refusal, "", colors.candidates(), colors.probes(), colors.now());
    }

    /** What the colours that may be chosen for a setting make of the widest band. */
    public record Colors(Map<String, String> candidates, List<String> probes, String now) {
        static final Colors NONE = new Colors(Map.of(), List.of(), "");

        /**
         * @param changesOnly whether each stylesheet holds only what differs from {@code values}
         * @param with the values if the setting were another colour
         */
        public static Colors of(
                Effective values,
                String address,
                Setting setting,
                boolean changesOnly,
                Function<Value, Effective> with) {
            Band widest = values.palette().bands().widest();
            ColorKind color = (ColorKind) setting.kind();
            String now = color.words(values.value(values.palette().known(setting.key()), widest));
            List<String> all = new ArrayList<>(color.swatches());
            if (!all.contains(now)) {
                all.add(now);
            }
            Function<String, String> css = c -> {
                Effective other = with.apply(Value.of(c));
                return changesOnly
                        ? SettingSheets.trial(values, other, widest, path -> address + Paths.address(path))
                        : Trial.css(other, widest, address);
            };
            Map<String, String> candidates = new LinkedHashMap<>();
            all.forEach(c -> candidates.put(c, css.apply(c)));
            return new Colors(candidates, List.of(css.apply("#000000"), css.apply("#ffffff")), now);
        }
    }

    /** All that a preview of the widest band shows. */
    public static String shown(Effective values, String address) {
        return css(values, values.palette().bands().widest(), address);
    }

    private static String css(Effective values, Band band, String address) {
        return SettingSheets.trial(values, band, path -> address + Paths.address(path));
    }

    private static Fill fill(Effective values, BoundPage.Fill f, String address) {
        Setting s = values.palette().known(f.key());
        if (s.kind() instanceof VideoKind) {
            Value.Parts p = (Value.Parts) f.value();
            return new Fill(f.attribute(), f.key(), shown(p.text("src"), address), shown(p.text("poster"), address));
        }
        if (f.value() instanceof Value.Many many) {
            return new Fill(f.attribute(), f.key(), items((ItemsKind) s.kind(), many, address), "");
        }
        String text = f.value() instanceof Value.Text t
                ? t.text()
                : f.value() instanceof Value.Number n
                        ? n.number().toPlainString()
                        : String.valueOf(((Value.Flag) f.value()).on());
        return new Fill(f.attribute(), f.key(), f.attribute().endsWith("src") ? shown(text, address) : text, "");
    }

    /** Items as JSON, with addresses of pictures that hold in a preview. */
    private static String items(ItemsKind kind, Value.Many many, String address) {
        List<Value> shown = new ArrayList<>();
        for (Value one : many.items()) {
            Map<String, Value> item = new LinkedHashMap<>(((Value.Parts) one).parts());
            kind.parts().forEach((key, part) -> {
                if (part.kind() instanceof PictureKind) {
                    item.computeIfPresent(key, (k, v) -> Value.of(shown(((Value.Text) v).text(), address)));
                }
            });
            shown.add(new Value.Parts(item));
        }
        return new Value.Many(shown).json().toString();
    }

    private static String shown(String path, String address) {
        return path.isEmpty() ? "" : address + Paths.address(path);
    }
}
