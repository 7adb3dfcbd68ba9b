package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorName;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.CompositeKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Refusal;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Theme;
import org.springframework.web.util.HtmlUtils;
import tools.jackson.databind.json.JsonMapper;

/**
 * What the templates of the controls ask for. One kind has one control, on the maker's side and on the owner's.
 *
 * @param subjects what must stay in sight of pictures
 * @param address of the previews, without a path: pictures are shown from there
 * @param owner whether owners read it, who know no terms of CSS
 * @param bring where pictures of one's own are brought to; empty where none are
 * @param own names of one's own pictures that are offered, by path; others of that folder are not
 */
public record Controls(
        Media media, List<Subject> subjects, String address, boolean owner, String bring, Map<String, String> own) {
    private static final int MOST_SHOWN = 24;
    /** Where pictures of an owner are among the files of a site. */
    public static final String OWN = "own-pictures/";

    public static Controls of(Theme theme, String address) {
        return new Controls(theme.media(), theme.palette().subjects(), address, false, "", Map.of());
    }

    /** A value of a setting as owners read it: a swatch by its name, another colour with what it is called, lengths in plain words. */
    public static String said(Setting s, String words) {
        if (!(s.kind() instanceof ColorKind color)) {
            return plain(words);
        }
        return color.swatches().contains(words)
                ? swatch(words, color)
                : Color.parse(words)
                        .map(c -> Language.say("swatch.called", words, ColorName.of(c)))
                        .orElse(words);
    }

    /** What people call a swatch; with its notation where another one is called the same. */
    public static String swatch(String css, ColorKind kind) {
        if (kind.names().containsKey(css)) {
            return kind.names().get(css);
        }
        String name = called(css);
        return kind.swatches().stream().filter(c -> called(c).equals(name)).count() > 1
                ? Language.say("swatch.twice", name, css)
                : name;
    }

    private static String called(String css) {
        return Color.parse(css).map(ColorName::of).orElse(css);
    }

    /** A picture or video to choose; {@code why} says why it may not be chosen, or is empty. */
    public record File(String path, String name, String address, String why) {}

    /** The fields of an item that is not there yet, under the number 9999. */
    public Map<String, String> newItem(ItemsKind kind) {
        Map<String, String> fields = new LinkedHashMap<>();
        kind.fields(new Value.Many(List.of(kind.item())))
                .forEach((name, text) -> fields.put(name.replaceFirst("^\\.0\\.", ".9999."), text));
        return fields;
    }

    /** What one calls an item: its first words. */
    public String titleOf(ItemsKind kind, Map<String, String> fields, String at) {
        return kind.parts().entrySet().stream()
                .filter(e -> e.getValue().kind() instanceof TextKind)
                .filter(e -> !e.getKey().equals("alt"))
                .map(e -> fields.getOrDefault("." + at + "." + e.getKey(), ""))
                .filter(t -> !t.isBlank())
                .findFirst()
                .map(t -> t.length() > 40 ? t.substring(0, 40) + "…" : t)
                .orElse(Language.say("control.item.without"));
    }

    /** The fields below a prefix, as the kind of a part names them. */
    public Map<String, String> sub(Map<String, String> fields, String prefix) {
        Map<String, String> sub = new LinkedHashMap<>();
        fields.forEach((name, text) -> {
            if (name.startsWith(prefix)) {
                sub.put(name.substring(prefix.length()), text);
            }
        });
        return sub;
    }

    /** The parts of a kind that has parts; null for others. */
    public CompositeKind parts(Kind kind) {
        return kind instanceof BackgroundKind b
                ? b.parts()
                : kind instanceof BorderKind b
                        ? b.parts()
                        : kind instanceof ShadowKind s ? s.parts() : kind instanceof SpacingKind s ? s.sides() : null;
    }

    /** The colour settings as options of a list, ready to be written. */
    public String colorOptions(Palette palette) {
        StringBuilder out = new StringBuilder();
        palette.settings().stream().filter(s -> s.kind() instanceof ColorKind).forEach(s -> out.append(
                        "<option value=\"")
                .append(HtmlUtils.htmlEscape(s.key()))
                .append("\">")
                .append(HtmlUtils.htmlEscape(s.label()))
                .append("</option>"));
        return out.toString();
    }

    /**
     * What the box of a background has to know beside the fields of its form: the parts that nobody may choose, and of each
     * picture that may show where it is, how large, and what must stay in sight of it. JSON.
     */
    public String box(BackgroundKind kind) {
        Map<String, String> fixed = new LinkedHashMap<>();
        kind.parts().fixed().forEach((part, value) -> kind.parts()
                .kinds()
                .get(part)
                .fields(value)
                .forEach((field, text) -> {
                    fixed.put(part + field, text);
                }));
        Map<String, Object> pictures = new LinkedHashMap<>();
        List<String> paths = new ArrayList<>(
                fixed.containsKey("picture")
                        ? List.of(fixed.get("picture"))
                        : pictures((PictureKind) kind.parts().kinds().get("picture")).stream()
                                .map(File::path)
                                .toList());
        for (String path : paths) {
            media.facts(path).ifPresent(facts -> pictures.put(path, picture(path, facts)));
        }
        return JsonMapper.shared().writeValueAsString(Map.of("fixed", fixed, "pictures", pictures));
    }

    private Map<String, Object> picture(String path, MediaFacts facts) {
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("address", address(path));
        of.put("width", facts.width());
        of.put("height", facts.height());
        subjects.stream().filter(s -> s.path().equals(path)).findFirst().ifPresent(s -> {
            of.put("subject", List.of(s.left(), s.top(), s.width(), s.height()));
            of.put("name", s.words());
        });
        return of;
    }

    /**
     * @param to where pictures of their own are brought to
     * @param theirs names of their own pictures that are offered, by path
     */
    public Controls forOwners(String to, Map<String, String> theirs) {
        return new Controls(media, subjects, address, true, to, theirs);
    }

    /** What a picture of one's own has to be for a kind, as JSON; the script tells what is missing before anything is sent. */
    public String asks(PictureKind kind) {
        Map<String, Object> asks = new LinkedHashMap<>();
        asks.put("leastWidth", kind.leastWidth());
        asks.put("leastHeight", kind.leastHeight());
        asks.put("narrowest", kind.narrowest());
        asks.put("widest", kind.widest());
        return JsonMapper.shared().writeValueAsString(asks);
    }

    /** What of it people read; empty where any picture is good. */
    public String asksInWords(PictureKind kind) {
        // Weight and format are seen to by themselves.
        PictureKind asked = new PictureKind(
                false, kind.leastWidth(), kind.leastHeight(), kind.narrowest(), kind.widest(), 0, List.of());
        return asked.equals(PictureKind.ANY) ? "" : asked.inWords();
    }

    /** The name of a part as people read it. */
    public String said(String part) {
        return owner ? owners("part." + part, CompositeKind.said(part)) : CompositeKind.said(part);
    }

    /** A unit, or a keyword of CSS that the maker gave no words. */
    public String word(String term) {
        return owner ? owners("unit." + term, owners("word." + term, term)) : term;
    }

    /** What owners, who know no terms of CSS, read in the place of one. */
    private static String owners(String term, String otherwise) {
        String key = "owner." + term;
        return Language.english().keys().contains(key) ? Language.say(key) : otherwise;
    }

    /** A value or what may be chosen, with the words of owners for units. */
    public static String plain(String words) {
        return UNIT.matcher(words).replaceAll(m -> {
            String unit = Language.say("owner.unit." + m.group(1));
            return unit.startsWith("%") ? unit : " " + unit;
        });
    }

    private static final Pattern UNIT =
            Pattern.compile("(?<=\\d) ?(rem|em|[sld]?vh|[sld]?vw|vmin|vmax|ch|ex|cap|ic|r?lh)\\b");

    /** Whether what it paints may be a picture or a gradient, on which texts stand. */
    public boolean liesBehind(Kind kind) {
        return kind instanceof BackgroundKind || kind instanceof GradientKind || kind instanceof PictureKind;
    }

    /** Whether nothing at all may be chosen. */
    public boolean mayBeNone(Kind kind) {
        return kind instanceof BorderKind b && b.none() || kind instanceof ShadowKind s && s.none();
    }

    /**
     * Whether a file is shown among those that may be chosen. A maker is told why one may not be; an owner sees what can be used, what is
     * chosen, and what they brought themselves.
     */
    public boolean shows(File file, String now) {
        return !owner
                || file.why().isEmpty()
                || file.path().equals(now)
                || file.path().startsWith(OWN);
    }

    private static final Set<String> OF_A_WHOLE = Set.of("%", "vh", "svh", "lvh", "dvh", "vw", "svw", "lvw", "dvw");
    private static final BigDecimal WHOLE = BigDecimal.valueOf(100);

    /** Whether a range is a part of something that has 100 of its unit, and less than all of it. */
    public boolean isPartOfAWhole(Range range, String unit) {
        BigDecimal from = range.lower();
        BigDecimal to = range.upper();
        boolean inside = from.signum() >= 0 && to.compareTo(WHOLE) <= 0;
        boolean all = from.signum() == 0 && to.compareTo(WHOLE) == 0;
        // A slide counts its steps from its end.
        boolean onStep = range.step() == null || from.remainder(range.step()).signum() == 0;
        return OF_A_WHOLE.contains(unit) && inside && !all && onStep;
    }

    public List<String> units(LengthKind kind) {
        return kind.units().isEmpty()
                ? LengthKind.UNITS
                : List.copyOf(kind.units().keySet());
    }

    /** What a colour field of the browser shows: it knows no alpha. */
    public String opaque(String color) {
        return color != null && color.matches("#[0-9a-f]{6}([0-9a-f]{2})?") ? color.substring(0, 7) : "#808080";
    }

    public String address(String path) {
        return address + Paths.address(path);
    }

    /** Pictures of the theme, those that may be chosen first. */
    public List<File> pictures(PictureKind kind) {
        return files(path -> kind.refusal(Value.of(path), around()), PictureKind.FORMATS);
    }

    /** Whether a colour can be taken from a picture. */
    public boolean hasPictures() {
        return media.paths().stream().anyMatch(p -> isPicture(p) && isOffered(p));
    }

    /** Pictures that a colour can be taken from, as JSON: name and address of each. */
    public String takeable() {
        return JsonMapper.shared()
                .writeValueAsString(media.paths().stream()
                        .filter(p -> isPicture(p) && isOffered(p))
                        .limit(MOST_SHOWN)
                        .map(p -> Map.of("name", name(p), "address", address(p)))
                        .toList());
    }

    /** Not what an owner took off the shelf. */
    private boolean isOffered(String path) {
        return !path.startsWith(OWN) || own.containsKey(path);
    }

    private String name(String path) {
        return own.getOrDefault(path, path.substring(path.lastIndexOf('/') + 1));
    }

    private static boolean isPicture(String path) {
        return PictureKind.FORMATS.contains(Paths.ending(path).replace("jpeg", "jpg"));
    }

    public List<File> videos(VideoKind kind) {
        return files(path -> kind.refusal(path, around()), VideoKind.FORMATS);
    }

    private List<File> files(Function<String, Optional<Refusal>> refusal, List<String> formats) {
        List<File> good = new ArrayList<>();
        List<File> bad = new ArrayList<>();
        for (String path : media.paths()) {
            String format = Paths.ending(path).replace("jpeg", "jpg");
            if (formats.contains(format) && isOffered(path)) {
                String why = refusal.apply(path).map(Refusal::words).orElse("");
                (why.isEmpty() ? good : bad).add(new File(path, name(path), address(path), why));
            }
        }
        good.addAll(bad.subList(0, Math.max(0, Math.min(bad.size(), MOST_SHOWN - good.size()))));
        return good;
    }

    private Kind.Around around() {
        return new Effective.MediaOnly(media);
    }
}
