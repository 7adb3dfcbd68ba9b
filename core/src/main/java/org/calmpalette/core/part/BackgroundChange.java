package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.StripGradient;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Viewport;

/**
 * Changes how one picture of a background lies in its box: its anchor, size, repeat or attachment, and the colour that goes on
 * beyond it. Only the layer that is meant changes. Where the longhand is written, its value changes; where only a shorthand
 * is, the longhand is written right after it, so that the shorthand stays to the byte.
 */
public final class BackgroundChange {
    /** Windows in which a change has to show, as {@link PaintedPicture} looks for pictures. */
    private static final List<Integer> WIDTHS = List.of(1440, 390);

    private BackgroundChange() {}

    /**
     * The change, ready to be looked at and made.
     *
     * @param values by property: {@code background-position}, {@code -size}, {@code -repeat}, {@code -attachment} or {@code -color}
     * @throws BadInputException if the picture is not set by a stylesheet, page or style attribute of the maker's own, or another rule would win
     */
    public static Change of(Rendered rendered, PaintedPicture picture, Map<String, String> values, String note) {
        Theme theme = rendered.theme();
        Optional<Setting> setting = picture.through().stream()
                .map(theme.palette().properties()::get)
                .filter(s -> s != null && s.kind() instanceof BackgroundKind)
                .findFirst();
        if (setting.isPresent()) {
            return ofSetting(theme, setting.get(), values);
        }
        Explanation.Cause by = picture.because();
        if (by != null && by.origin() == Origin.STYLE_ATTRIBUTE && !by.isInAttribute()) {
            throw new BadInputException(
                    by.file() + ", line " + by.line()
                            + ": a style attribute without quotes, or with character references, sets this background.",
                    "Put it in quotes and write the characters themselves, or move the background into a stylesheet.");
        }
        if (by == null || !by.isInTheme() && !by.isInAttribute()) {
            throw new BadInputException(
                    "No stylesheet of this theme sets this background.",
                    "Click the part in the survey; it tells what does.");
        }
        SheetRole role = SheetRole.of(theme).get(by.file());
        if (role != null && !role.lasts()) {
            throw new BadInputException(
                    by.file() + ", line " + by.line() + ": an edit here does not last. " + role.because(),
                    "Click the part in the survey; from there it is overridden in your own stylesheet.");
        }
        Located at = Located.find(theme, by.file(), by.start());
        Change change = Change.of(note);
        StringBuilder added = new StringBuilder();
        for (Map.Entry<String, String> e : values.entrySet()) {
            String value = e.getKey().equals("background-color")
                    ? e.getValue()
                    : inItsLayer(rendered, picture, e.getKey(), e.getValue());
            Optional<Located> longhand = later(at, e.getKey());
            if (longhand.isPresent()) {
                change = change.with(
                        by.file(),
                        new Edit(longhand.get().valueStart(), longhand.get().valueEnd(), value));
            } else {
                added.append(";")
                        .append(at.isOnOwnLine() ? at.part().file().newline() + at.indent() : " ")
                        .append(e.getKey())
                        .append(": ")
                        .append(value)
                        .append(at.declaration().important() ? " !important" : "");
            }
        }
        if (!added.isEmpty()) {
            change = change.with(by.file(), new Edit(at.declarationEnd(), at.declarationEnd(), added.toString()));
        }
        check(rendered, picture, values, change);
        return change;
    }

    /**
     * A gradient in place of a strip: its address is replaced where it stands, and the size that the strip had of itself is given
     * to the gradient, which has none.
     *
     * @throws BadInputException as {@link #of}; also if a setting holds the picture, or its address is not written in the declaration
     */
    public static Change asGradient(Rendered rendered, PaintedPicture picture, StripGradient gradient) {
        Theme theme = rendered.theme();
        if (isHeld(theme, picture)) {
            throw new BadInputException(
                    "A setting holds this picture, and a picture is what its owner may choose.",
                    "Let the setting go first, or make one of the kind gradient.");
        }
        Change change = of(
                rendered,
                picture,
                Map.of("background-size", gradient.size()),
                "Wrote " + picture.path() + " as a gradient");
        Located at =
                Located.find(theme, picture.because().file(), picture.because().start());
        Edit address = address(at, picture.layer())
                .map(span -> new Edit(span[0], span[1], gradient.css()))
                .orElseThrow(() -> new BadInputException(
                        picture.because().file() + ", line " + picture.because().line()
                                + ": the address is not written in the declaration itself.",
                        "Write the gradient where the address is: " + gradient.css()));
        return change.with(picture.because().file(), address);
    }

    /** Whether a setting holds the picture itself; a colour beside it does not count. */
    public static boolean isHeld(Theme theme, PaintedPicture picture) {
        return picture.through().stream()
                .map(theme.palette().properties()::get)
                .anyMatch(s -> s != null && (s.kind() instanceof BackgroundKind || s.kind() instanceof PictureKind));
    }

    /** Where the address of a layer stands in a file. */
    private static Optional<int[]> address(Located at, int layer) {
        Tokens tokens = at.part().sheet().tokens();
        int now = 0;
        for (int i = at.declaration().valueFirst(); i < at.declaration().valueEnd(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, at.declaration().valueEnd()) : i + 1;
            boolean url = tokens.is(i, TokenType.URL)
                    || tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url");
            if (url && now == layer) {
                return Optional.of(new int[] {at.start(i), at.end(next - 1)});
            }
            now += tokens.is(i, TokenType.COMMA) ? 1 : 0;
            i = next;
        }
        return Optional.empty();
    }

    /** Where a setting makes the background, its default changes; what is fixed for the owner is fixed anew. */
    private static Change ofSetting(Theme theme, Setting setting, Map<String, String> values) {
        if (!(setting.given() instanceof Given.Fixed fixed)) {
            throw new BadInputException(
                    "“" + setting.label() + "” follows another setting.",
                    "Change that one, or give this one a value of its own, in Settings.");
        }
        Map<String, Value> parts = new LinkedHashMap<>(((Value.Parts) fixed.value()).parts());
        Map<String, Value> allowed =
                new LinkedHashMap<>(setting.kind().allowed().parts());
        Map<String, Value> held =
                allowed.get("fixed") instanceof Value.Parts f ? new LinkedHashMap<>(f.parts()) : new LinkedHashMap<>();
        values.forEach((property, value) -> {
            String part = property.replace("background-", "");
            parts.put(part, Value.of(value));
            held.computeIfPresent(part, (k, v) -> Value.of(value));
        });
        if (!held.isEmpty()) {
            allowed.put("fixed", new Value.Parts(held));
        }
        Kind kind = Kinds.read("background", new Value.Parts(allowed));
        Setting wanted = setting.withKind(kind).withGiven(new Given.Fixed(kind.normal(new Value.Parts(parts))));
        return PaletteChange.edit(
                theme, wanted, new Place(setting.place(), theme.palette().placeLabel(setting.place())));
    }

    /** A longhand that the same rule writes after the picture, and that therefore counts. */
    private static Optional<Located> later(Located at, String property) {
        List<Node> siblings = at.around().isEmpty()
                ? at.part().sheet().rules()
                : at.rule() == null ? List.of() : at.rule().children();
        boolean shorthand = at.declaration().property().equals("background");
        Located found = null;
        for (Node node : siblings) {
            if (node instanceof Node.Declaration d
                    && d.property().equals(property)
                    && (!shorthand || d.first() > at.declaration().first())) {
                found = new Located(at.part(), d, at.around());
            }
        }
        return Optional.ofNullable(found);
    }

    /** The values of all layers, with that of one changed. */
    private static String inItsLayer(Rendered rendered, PaintedPicture picture, String property, String value) {
        if (picture.layers() == 1) {
            return value;
        }
        ElementStyle style = style(rendered, picture, WIDTHS.get(0));
        Function<String, List<String>> list = longhand -> {
            List<String> all = ComponentValue.commaSeparated(ComponentValue.read(style.computed(longhand))).stream()
                    .map(ComponentValue::join)
                    .toList();
            List<String> whole = new ArrayList<>();
            for (int i = 0; i < picture.layers(); i++) {
                whole.add(all.get(i % all.size()));
            }
            return whole;
        };
        List<String> all = new ArrayList<>();
        if (property.equals("background-position")) {
            List<String> x = list.apply("background-position-x");
            List<String> y = list.apply("background-position-y");
            for (int i = 0; i < x.size(); i++) {
                all.add(x.get(i) + " " + y.get(i));
            }
        } else {
            all.addAll(list.apply(property));
        }
        all.set(picture.layer(), value);
        return String.join(", ", all);
    }

    /** A stronger rule may set the same elsewhere; then the edit would do nothing. Each value has to show in some window. */
    private static void check(Rendered rendered, PaintedPicture picture, Map<String, String> values, Change change) {
        Rendered then = new Rendered(change.applied(rendered.theme()));
        for (String property : values.keySet()) {
            List<String> longhands = property.equals("background-position")
                    ? List.of("background-position-x", "background-position-y")
                    : List.of(property);
            boolean shows = WIDTHS.stream().anyMatch(width -> {
                ElementStyle before = style(rendered, picture, width);
                ElementStyle after = style(then, picture, width);
                return longhands.stream().anyMatch(l -> !before.computed(l).equals(after.computed(l)));
            });
            if (!shows) {
                throw new BadInputException(
                        "Another rule sets " + property + " too and wins, or it is so already.",
                        "Click the part in the survey; it tells which rule wins, and how to win over it.");
            }
        }
    }

    private static ElementStyle style(Rendered rendered, PaintedPicture picture, int width) {
        Page page = rendered.page(picture.page()).orElseThrow();
        return rendered.styles(page, Viewport.of(width, 800), States.NONE)
                .of(page.elements().get(picture.element()));
    }
}
