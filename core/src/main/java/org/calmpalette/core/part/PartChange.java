package org.calmpalette.core.part;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.change.SourceVariable;
import org.calmpalette.core.change.Strengthened;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.output.SettingSheets;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * Changes how a part of a page looks, as far as one says: this part, all that a rule paints, all that a custom property
 * paints. Only the characters of the value change where the value stands in the maker's own sheet; else a rule is
 * written at the end of that sheet, just strong enough to win.
 */
public final class PartChange {
    /** What the part gets. */
    public sealed interface What {
        /** A setting of its own. */
        record NewSetting(Setting setting, Place place) implements What {}

        /** A setting that is given to several places in a row, and put into the palette by whoever gives it. */
        record Reads(Setting setting) implements What {}

        /** A setting that is there. */
        record Follow(String key) implements What {}

        /** A fixed value. */
        record Value(String css) implements What {}

        /** @param sides among top, right, bottom, left; empty for all. Only borders, margins and paddings have sides. */
        record Nothing(Set<String> sides) implements What {}
    }

    private static final Set<String> SIDED = Set.of("border", "margin", "padding");
    private static final String PROBE = "#010203";

    private final Rendered rendered;
    private final Page page;
    private final Element element;
    private final String pseudo;
    private final String property;
    private final LocalDate dated;
    private final PageStyles styles;
    private final Map<String, SheetRole> roles;

    /**
     * @param pseudo {@code before}, {@code after}, or null for the element itself
     * @param property the longhand that is to change
     * @param states switched on, as in {@link PartLook}
     * @param dated the day for a comment beside the rule, or null for no comment
     */
    public PartChange(
            Rendered rendered,
            Page page,
            int index,
            String pseudo,
            String property,
            Viewport window,
            Set<String> states,
            LocalDate dated) {
        this.rendered = rendered;
        this.page = states.contains("current") ? page.withCurrent(index) : page;
        if (index < 1 || index >= this.page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        this.element = this.page.elements().get(index);
        this.pseudo = pseudo;
        this.property = property;
        this.dated = dated;
        this.styles = rendered.styles(this.page, window, PartLook.states(states, element));
        this.roles = SheetRole.of(rendered.theme());
    }

    private ElementStyle style(Element e) {
        return pseudo == null || e != element ? styles.of(e) : styles.of(e, pseudo);
    }

    /**
     * The change, ready to be looked at and made.
     *
     * @param reach as {@link PartLook.Reach#id()}
     * @throws BadInputException if the value is none for the property, or nothing outside can beat what stands there
     */
    public Change fix(String reach, What what) {
        Explanation e = Explanation.of(style(element), property);
        String value = value(what, e);
        String title = title(reach, what, e);
        Change fix =
                switch (reach) {
                    case "only" -> only(title, value, what, e);
                    case "rule" -> rule(title, value, what, e);
                    default -> reach.startsWith("--") ? variable(title, reach, value, what, e) : source(reach, value);
                };
        if (what instanceof What.NewSetting s) {
            Palette palette = rendered.theme().palette();
            PaletteChange.checkFree(rendered.theme(), s.setting());
            fix = fix.withPalette(rendered.theme(), palette.with(s.setting(), s.place()));
        }
        return fix;
    }

    private String value(What what, Explanation e) {
        if (setting(what) != null) {
            return "var(" + setting(what).property() + ", "
                    + literal(e, setting(what).kind() instanceof ColorKind) + ")";
        }
        if (what instanceof What.Follow f) {
            Setting s = rendered.theme()
                    .palette()
                    .setting(f.key())
                    .orElseThrow(() -> new BadInputException(
                            "There is no setting “" + f.key() + "” any more.", "Choose another one."));
            String now = said(s, ThemeBuild.defaults(rendered.theme()));
            if (Understanding.of(property, now) != Understanding.FULL) {
                throw new BadInputException(
                        "“" + s.label() + "” is a " + s.kind().label() + " and cannot be followed by " + property + ".",
                        "Choose another one.");
            }
            return "var(" + s.property() + ", " + now + ")";
        }
        if (what instanceof What.Value v) {
            String text = v.css().strip();
            boolean escapes = text.contains(";")
                    || text.contains("{")
                    || text.contains("}")
                    || text.contains("/*")
                    || text.contains("!");
            if (text.isEmpty()
                    || escapes
                    || Understanding.of(property, text) != Understanding.FULL
                    || !Understanding.strangeWords(property, text).isEmpty()) {
                throw new BadInputException(
                        "“" + text + "” is no value of " + property + ".",
                        isColor()
                                ? "Write a CSS colour, such as #24463a or rgb(36 70 58)."
                                : "Write a value as CSS does, without the semicolon.");
            }
            return text;
        }
        return none(property);
    }

    /** The setting that is read, where a literal of today stands beside it. */
    private static Setting setting(What what) {
        return what instanceof What.NewSetting n ? n.setting() : what instanceof What.Reads r ? r.setting() : null;
    }

    /** Whether what is written shows the same wherever it is read: a keyword such as currentColor does not. */
    private boolean isLiteral(String written) {
        return isColor() ? Color.parse(written).isPresent() : !Reference.isIn(written);
    }

    private boolean isColor() {
        return property.endsWith("color") || property.equals("fill") || property.equals("stroke");
    }

    private static String none(String property) {
        if (property.startsWith("border") || property.startsWith("margin") || property.startsWith("padding")) {
            return "0";
        }
        return property.equals("background-color") ? "transparent" : "none";
    }

    /** Today's value as a literal: what shows where settings.css is missing. */
    private String literal(Explanation e, boolean colored) {
        if (!isColor() && !colored) {
            Element holder = e.inheritedFrom() == null ? element : e.inheritedFrom();
            return Painting.declared(style(holder), property)
                    .filter(v -> !Reference.isIn(v))
                    .orElse(e.value());
        }
        return Color.parse(e.value())
                .map(ColorKey::of)
                .orElseThrow(() -> new BadInputException(
                        "What paints it is no colour: " + e.value() + ".", "Give it a value instead."));
    }

    private String title(String reach, What what, Explanation e) {
        String part = (reach.equals("only")
                        ? PartSelector.name(element)
                        : reach.equals("rule") && e.winner() != null
                                ? e.winner().selector()
                                : reach.startsWith("--") ? reach : PartSelector.name(element))
                + (pseudo == null ? "" : "::" + pseudo);
        String aspect = String.join("", Painting.inGroups(List.of(property)));
        String of = "the " + aspect + " of " + part;
        if (setting(what) != null) {
            return "Gave " + of + " the setting “" + setting(what).label() + "”";
        }
        if (what instanceof What.Follow f) {
            return "Let " + of + " follow “"
                    + rendered.theme()
                            .palette()
                            .setting(f.key())
                            .map(Setting::label)
                            .orElse(f.key()) + "”";
        }
        if (what instanceof What.Value v) {
            return "Set " + of + " to " + v.css().strip();
        }
        Set<String> sides = ((What.Nothing) what).sides();
        return "Took the " + sided() + " of " + part + " away"
                + (sides.isEmpty() || !SIDED.contains(sided()) ? "" : " (" + String.join(", ", sides) + ")");
    }

    private static String said(Setting s, Effective values) {
        return SettingSheets.properties(
                        s, values.value(s, values.palette().bands().widest()), a -> a)
                .getOrDefault(s.property(), "");
    }

    /** The settings of a theme whose values a property understands, so that it can follow them. */
    public static List<Setting> followed(Theme theme, String property) {
        Effective values = ThemeBuild.defaults(theme);
        return theme.palette().settings().stream()
                .filter(s -> Understanding.of(property, said(s, values)) == Understanding.FULL)
                .toList();
    }

    private String sided() {
        String first = property.split("-")[0];
        return SIDED.contains(first) ? first : String.join("", Painting.inGroups(List.of(property)));
    }

    /** The declarations to write in a rule of its own, one a line without indent. */
    private List<String> declarations(String value, What what) {
        if (what instanceof What.Nothing n && SIDED.contains(sided())) {
            return n.sides().isEmpty()
                    ? List.of(sided() + ": 0")
                    : new java.util.TreeSet<>(n.sides())
                            .stream().map(s -> sided() + "-" + s + ": 0").toList();
        }
        if (property.startsWith("border-") && property.endsWith("-color") && isWholeBorder()) {
            return List.of("border-color: " + value);
        }
        return List.of(property + ": " + value);
    }

    /** True if all four sides have the same colour by the same declaration: then one means all of them. */
    private boolean isWholeBorder() {
        List<Explanation> sides = List.of("top", "right", "bottom", "left").stream()
                .map(s -> Explanation.of(style(element), "border-" + s + "-color"))
                .toList();
        return sides.stream()
                        .map(s ->
                                s.value() + (s.winner() == null ? 0 : s.winner().start()))
                        .distinct()
                        .count()
                == 1;
    }

    private Change only(String title, String value, What what, Explanation e) {
        String selector =
                PartSelector.alone(rendered.theme().pages(), page, element) + (pseudo == null ? "" : "::" + pseudo);
        // What is inherited has no declaration on the element itself to beat.
        Explanation.Cause own = e.inheritedFrom() == null ? e.winner() : null;
        return written(title, selector, List.of(), own, declarations(value, what));
    }

    /**
     * A rule for all that a selector finds, strong enough to win over what decides it on the element.
     *
     * @param selector of elements that look as this one does
     */
    public Change all(String selector, What what) {
        Explanation e = Explanation.of(style(element), property);
        Explanation.Cause own = e.inheritedFrom() == null ? e.winner() : null;
        return written(title("only", what, e), selector, List.of(), own, declarations(value(what, e), what));
    }

    private Change rule(String title, String value, What what, Explanation e) {
        Explanation.Cause w = e.winner();
        if (w == null || !w.isInTheme() || w.origin() != Origin.AUTHOR) {
            throw new BadInputException("No rule of the theme paints this.", "Change this part alone.");
        }
        Located at = Located.find(rendered.theme(), w.file(), w.start());
        if (!roles.get(w.file()).lasts()) {
            SelectorList list = Readers.selector(at.part().sheet(), at.around()).orElseThrow();
            return written(title, list.toString(), w.conditions(), w, declarations(value, what));
        }
        Element holder = e.inheritedFrom() == null ? element : e.inheritedFrom();
        return commented(edited(title, at, style(holder), value, what), at);
    }

    private Change edited(String title, Located at, ElementStyle holder, String value, What what) {
        String file = at.part().path();
        boolean whole = what instanceof What.Nothing n
                && SIDED.contains(sided())
                && n.sides().isEmpty()
                && (at.declaration().property().equals(sided()));
        if (whole) {
            return Change.edit(title, file, new Edit(at.valueStart(), at.valueEnd(), "0"));
        }
        if (!(what instanceof What.Nothing)) {
            String probe = isColor() ? PROBE : probe(value);
            boolean side = property.matches("(margin|padding)-(top|right|bottom|left)");
            Optional<int[]> stretch = Painting.component(holder, at.part().sheet(), at.declaration(), property, probe)
                    .filter(s -> !side || Painting.isAlone(holder, at.part().sheet(), at.declaration(), s, probe));
            if (stretch.isPresent()) {
                int start = at.start(stretch.get()[0]);
                int end = at.end(stretch.get()[1] - 1);
                String written = at.part().file().text().substring(start, end);
                String text = value;
                if (setting(what) != null && isLiteral(written)) {
                    text = "var(" + setting(what).property() + ", " + written + ")";
                }
                return Change.edit(title, file, new Edit(start, end, text));
            }
        }
        StringBuilder more = new StringBuilder();
        for (String d : declarations(value, what)) {
            more.append(';')
                    .append(at.isOnOwnLine() ? at.part().file().newline() + at.indent() : " ")
                    .append(d)
                    .append(at.declaration().important() ? " !important" : "");
        }
        return Change.edit(title, file, new Edit(at.declarationEnd(), at.declarationEnd(), more.toString()));
    }

    /** A value of the property that no stylesheet has, to see which of several it is. */
    private String probe(String value) {
        return value.startsWith("var(")
                ? Understanding.of(property, "12321px") == Understanding.FULL ? "12321px" : "inherit"
                : value;
    }

    private Change variable(String title, String name, String value, What what, Explanation e) {
        Element holder = e.inheritedFrom() == null ? element : e.inheritedFrom();
        Explanation.Cause w = Explanation.of(style(holder), name).winner();
        if (w == null || !w.isInTheme() || !roles.containsKey(w.file())) {
            throw new BadInputException(
                    name + " is not declared in a stylesheet of the theme.", "Change the rule or this part alone.");
        }
        if (what instanceof What.Nothing) {
            throw new BadInputException(
                    "A custom property cannot be taken away for all.",
                    "Take it away from this part, or from the rule.");
        }
        Located at = Located.find(rendered.theme(), w.file(), w.start());
        if (roles.get(w.file()).lasts()) {
            String written = at.value();
            String text = setting(what) != null && isLiteral(written)
                    ? "var(" + setting(what).property() + ", " + written + ")"
                    : value;
            return commented(Change.edit(title, w.file(), new Edit(at.valueStart(), at.valueEnd(), text)), at);
        }
        SelectorList list = Readers.selector(at.part().sheet(), at.around()).orElseThrow();
        return written(title, list.toString(), w.conditions(), w, List.of(name + ": " + value));
    }

    private Change source(String reach, String value) {
        return roles.values().stream()
                .flatMap(r -> SourceVariable.of(rendered.theme(), r.source()).stream())
                .filter(v -> reach.equals(v.file() + "@" + v.start()))
                .findFirst()
                .map(v -> Change.edit(
                        "Set " + v.name() + " in " + v.file() + " to " + value + ", for the next build",
                        v.file(),
                        new Edit(v.start(), v.start() + v.value().length(), value)))
                .orElseThrow(() ->
                        new BadInputException("That variable is no longer where it was.", "Point at the part again."));
    }

    /** A rule at the end of the own sheet, strong enough to win. */
    private Change written(
            String title,
            String selector,
            List<String> conditions,
            Explanation.Cause winner,
            List<String> declarations) {
        OwnSheet own = new OwnSheet(rendered, roles);
        boolean after =
                winner == null || rendered.theme().pages().stream().allMatch(p -> own.comesAfter(winner.file(), p));
        Strengthened strong = SelectorList.parse(selector)
                .flatMap(l ->
                        Strengthened.over(l, winner, after, rendered.theme().pages()))
                .orElseThrow(() -> new BadInputException(
                        "An !important in a layer paints this, which no rule outside can beat: " + winner.file()
                                + ", line " + winner.line() + ".",
                        "Change that declaration itself."));
        StringBuilder css = new StringBuilder();
        if (dated != null) {
            css.append(comment(title)).append('\n');
        }
        String indent = "";
        for (String c : conditions) {
            css.append(indent).append(c).append(" {\n");
            indent += "  ";
        }
        css.append(indent).append(strong.selector()).append(" {\n");
        for (String d : declarations) {
            css.append(indent)
                    .append("  ")
                    .append(d)
                    .append(strong.important() ? " !important" : "")
                    .append(";\n");
        }
        css.append(indent).append('}');
        while (!indent.isEmpty()) {
            indent = indent.substring(2);
            css.append('\n').append(indent).append('}');
        }
        return own.append(title, css.toString(), rendered.theme().pages());
    }

    private Change commented(Change fix, Located at) {
        // A comment of a style attribute would go to every visitor, on a line of its own.
        if (dated == null || at.around().isEmpty()) {
            return fix;
        }
        String comment = comment(fix.note()) + at.part().file().newline() + at.ruleIndent();
        return fix.with(at.part().path(), new Edit(at.ruleStart(), at.ruleStart(), comment));
    }

    private String comment(String title) {
        return "/* " + dated + ": " + title.replace("*/", "* /") + " */";
    }
}
