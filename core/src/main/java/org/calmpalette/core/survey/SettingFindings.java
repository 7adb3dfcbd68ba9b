package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorTerm;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** What is wrong with the settings themselves, and with the parts of pages that name them. */
final class SettingFindings {
    private SettingFindings() {}

    static List<Finding> of(Theme theme) {
        List<Finding> all = new ArrayList<>();
        for (Palette.Fault f : theme.palette().faults()) {
            all.add(new Finding(
                    Finding.Kind.UNUSABLE_SETTING, Palette.FILE, f.line(), 0, f.at() + ": " + f.what(), f.mend()));
        }
        for (Effective.Problem p : ThemeBuild.defaults(theme).problems()) {
            all.add(new Finding(
                    Finding.Kind.UNUSABLE_SETTING,
                    Palette.FILE,
                    PaletteJson.line(
                            theme.files().read(Palette.FILE), p.setting().key()),
                    0,
                    "The default of “" + p.setting().label() + "” for "
                            + p.band().label() + ", " + p.setting().kind().words(p.value())
                            + ", is not among what an owner may choose. "
                            + p.why().words(),
                    "Allow it, or take another default."));
        }
        named(theme, all);
        theme.pages().stream().filter(BoundPage::isBound).forEach(p -> bound(theme, p, all));
        return all;
    }

    /** A setting whose name says another colour than it has: its default was changed, or the whole theme took other colours. */
    private static void named(Theme theme, List<Finding> all) {
        Effective defaults = ThemeBuild.defaults(theme);
        for (Setting s : theme.palette().settings()) {
            if (!(s.kind() instanceof ColorKind)
                    || !(defaults.value(s, theme.palette().bands().widest()) instanceof Value.Text text)) {
                continue;
            }
            List<ColorTerm> terms = ColorTerm.in(s.label());
            Optional<Color> color = Color.parse(text.text());
            if (!terms.isEmpty() && color.isPresent() && terms.stream().noneMatch(t -> t.holds(color.get()))) {
                all.add(new Finding(
                                Finding.Kind.NAME_BESIDE_COLOR,
                                Palette.FILE,
                                PaletteJson.line(theme.files().read(Palette.FILE), s.key()),
                                0,
                                "“" + s.label() + "” is " + text.text() + ", which nobody would call "
                                        + terms.get(0).word() + ".",
                                "Call it after what it paints: then the name fits whatever colour it has.")
                        .about(s.key()));
            }
        }
    }

    private static void bound(Theme theme, Page page, List<Finding> all) {
        for (Element e : page.elements()) {
            for (Binding b : Binding.values()) {
                String key = e.attr(b.attribute());
                if (key.isEmpty()) {
                    continue;
                }
                Setting s = theme.palette().setting(key).orElse(null);
                String what = s == null
                        ? "There is no setting “" + key + "”"
                        : s.kind().bindings().contains(b)
                                ? ""
                                : "“" + s.label() + "” is a " + s.kind().label() + " and cannot fill the " + b.label()
                                        + " of a part";
                if (!what.isEmpty()) {
                    all.add(new Finding(
                            Finding.Kind.UNKNOWN_SETTING,
                            page.source().file(),
                            page.source().line(Math.max(0, e.sourceRange().startPos())),
                            0,
                            what + ", which " + b.attribute() + " names.",
                            "Correct the name, or take the attribute out; until then the part stays as it is."));
                }
            }
        }
    }
}
