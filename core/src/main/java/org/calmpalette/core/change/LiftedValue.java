package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * The value of a declaration, or of one or more layers of a background, as a setting could hold it.
 *
 * @param layer of a background with several, counted from 1; 0 for the whole value
 * @param from where it is written, counted from the start of the value; what stands around it stays, to the byte
 * @param to after its last character
 */
public record LiftedValue(Kind kind, Value value, int layer, int from, int to) {
    private static final Set<String> FOUR_SIDED =
            Set.of("margin", "padding", "inset", "scroll-margin", "scroll-padding", "border-width");
    private static final Set<String> BORDERS = Set.of(
            "border",
            "border-top",
            "border-right",
            "border-bottom",
            "border-left",
            "outline",
            "border-block",
            "border-inline",
            "column-rule");

    /**
     * What a declaration's value could be lifted into, the best first.
     *
     * @param file that the declaration stands in: addresses of pictures are seen from it
     */
    public static List<LiftedValue> of(String property, String written, String file) {
        List<Kind> kinds = new ArrayList<>();
        if (property.startsWith("background")) {
            if (property.equals("background") && ColorKind.ANY.readCss(written).isEmpty()) {
                kinds.add(BackgroundKind.ANY);
            }
            kinds.add(GradientKind.ANY);
            if (property.equals("background-image")) {
                kinds.add(PictureKind.ANY);
            }
        }
        if (property.equals("list-style-image")
                || property.equals("border-image-source")
                || property.equals("mask-image")) {
            kinds.add(PictureKind.ANY);
        }
        if (BORDERS.contains(property)) {
            kinds.add(BorderKind.ANY);
        }
        if (property.equals("box-shadow")) {
            kinds.add(ShadowKind.ANY);
        }
        if (FOUR_SIDED.contains(property)) {
            kinds.add(SpacingKind.ANY);
        }
        kinds.add(ColorKind.ANY);
        if (!property.equals("z-index") && !property.equals("opacity") && !property.equals("font-weight")) {
            kinds.add(LengthKind.ANY);
        }
        kinds.add(NumberKind.ANY);
        kinds.add(NumberKind.PERCENTAGE);
        choice(property, written).ifPresent(kinds::add);
        List<LiftedValue> all = new ArrayList<>();
        for (Kind k : kinds) {
            k.readCss(written)
                    .map(v -> resolved(v, k, file))
                    .filter(v -> fits(k, v))
                    .ifPresent(v -> all.add(new LiftedValue(k, v, 0, 0, written.length())));
        }
        if (property.equals("background") && all.stream().noneMatch(l -> l.kind() instanceof BackgroundKind)) {
            lower(written, file, all);
        }
        if (property.equals("background") || property.equals("background-image")) {
            pictures(written, file, all);
        }
        return all;
    }

    /**
     * The lowest layers of several as one background: a picture with its colour, and the even shade over it. Those above stay as they
     * are written, such as a gradient that no setting of this kind has.
     */
    private static void lower(String written, String file, List<LiftedValue> all) {
        Tokens tokens = Tokenizer.tokenize(written);
        List<Integer> starts = new ArrayList<>(List.of(0));
        for (int i = 0; i < tokens.size(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, tokens.size()) : i + 1;
            if (tokens.is(i, TokenType.COMMA)) {
                starts.add(tokens.skipBlank(next, tokens.size()));
            }
            i = next;
        }
        for (int layer = Math.max(2, starts.size() - 1); layer <= starts.size(); layer++) {
            int at = starts.get(layer - 1);
            if (at >= tokens.size()) {
                return;
            }
            int from = tokens.start(at);
            Optional<Value> value = BackgroundKind.ANY
                    .readCss(written.substring(from))
                    .map(v -> resolved(v, BackgroundKind.ANY, file))
                    .filter(v -> fits(BackgroundKind.ANY, v));
            if (value.isPresent()) {
                all.add(new LiftedValue(BackgroundKind.ANY, value.get(), layer, from, written.length()));
                return;
            }
        }
    }

    /** Pictures of single layers, where there are several. */
    private static void pictures(String written, String file, List<LiftedValue> all) {
        Tokens tokens = Tokenizer.tokenize(written);
        int layer = 1;
        List<LiftedValue> found = new ArrayList<>();
        for (int i = 0; i < tokens.size(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, tokens.size()) : i + 1;
            int from = tokens.start(i);
            int to = tokens.end(next - 1);
            layer += tokens.is(i, TokenType.COMMA) ? 1 : 0;
            boolean address = tokens.is(i, TokenType.URL)
                    || tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url");
            int at = layer;
            if (address && found.stream().noneMatch(l -> l.layer() == at)) {
                PictureKind.ANY
                        .readCss(written.substring(from, to))
                        .map(v -> resolved(v, PictureKind.ANY, file))
                        .filter(v -> fits(PictureKind.ANY, v))
                        .ifPresent(v -> found.add(new LiftedValue(PictureKind.ANY, v, at, from, to)));
            }
            i = next;
        }
        if (layer > 1) {
            all.addAll(found);
        }
    }

    /** As a maker chooses among several. */
    public String label() {
        return layer == 0
                ? kind.label()
                : kind instanceof BackgroundKind
                        ? "the background from layer " + layer + " on"
                        : "the picture of layer " + layer;
    }

    private static boolean fits(Kind kind, Value value) {
        try {
            return kind.normal(value) != null;
        } catch (BadInputException e) {
            return false;
        }
    }

    /** The keyword that is written, and the others that the property takes. */
    private static Optional<Kind> choice(String property, String written) {
        String word = written.strip().toLowerCase(java.util.Locale.ROOT);
        Set<String> words = new TreeSet<>(Understanding.words(property));
        words.removeIf(w -> !w.matches("-?[a-z][a-z-]*"));
        if (!words.contains(word) || words.size() < 2 || words.size() > 40) {
            return Optional.empty();
        }
        words.remove(word);
        List<String> options = new ArrayList<>(List.of(word));
        options.addAll(words);
        return Optional.of(ChoiceKind.of(options));
    }

    /** With addresses of pictures as paths from the theme's folder; what points elsewhere becomes no picture's path. */
    static Value resolved(Value v, Kind kind, String file) {
        if (kind instanceof PictureKind
                && v instanceof Value.Text t
                && !t.text().isEmpty()) {
            return Value.of(Paths.resolve(file, t.text()).orElse("//" + t.text()));
        }
        if (kind instanceof BackgroundKind
                && v instanceof Value.Parts p
                && !p.text("picture").isEmpty()) {
            Map<String, Value> parts = new LinkedHashMap<>(p.parts());
            parts.put("picture", Value.of(Paths.resolve(file, p.text("picture")).orElse("//" + p.text("picture"))));
            return new Value.Parts(parts);
        }
        return v;
    }

    /**
     * Ties the whole value of a declaration to a new setting. Only the characters of the value change.
     *
     * @param start of the declaration, as in {@link Located#find}
     * @throws BadInputException if the key is taken, or the sheet is one that a build makes anew
     */
    public static Change lift(Theme theme, String file, int start, Setting setting, Place place) {
        return lift(theme, file, start, 0, setting, place);
    }

    /** @param layer of which only the picture is lifted, or with which the background begins that is lifted; 0 for the whole value */
    public static Change lift(Theme theme, String file, int start, int layer, Setting setting, Place place) {
        Located at = Located.find(theme, file, start);
        int from = 0;
        int to = at.valueEnd() - at.valueStart();
        if (layer > 0) {
            LiftedValue part = of(at.declaration().property(), at.value(), file).stream()
                    .filter(l -> l.layer() == layer
                            && l.kind().name().equals(setting.kind().name()))
                    .findFirst()
                    .orElseThrow(() -> new BadInputException(
                            "The background has no " + setting.kind().label() + " in layer " + layer + ".",
                            "Load the page again."));
            from = part.from();
            to = part.to();
        }
        String written = at.value().substring(from, to);
        if (Reference.isIn(written)) {
            throw new BadInputException(
                    "The value reads a custom property already: " + written + ".",
                    "Change that one, or give it a fixed value first.");
        }
        PaletteChange.checkFree(theme, setting);
        return Change.edit(
                        "Lifted " + at.declaration().property() + " in " + file + ", line " + at.line()
                                + " into the setting “" + setting.label() + "”",
                        file,
                        new Edit(
                                at.valueStart() + from,
                                at.valueStart() + to,
                                "var(" + setting.property() + ", " + written + ")"))
                .withPalette(theme, theme.palette().with(setting, place));
    }
}
