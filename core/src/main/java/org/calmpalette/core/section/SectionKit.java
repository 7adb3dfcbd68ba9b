package org.calmpalette.core.section;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.PictureFile;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.JsonLines;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A section as its maker made it, before it stands on a page: markup, stylesheet, settings and pictures, in a folder of its own. Keys
 * of its settings are its own; a section on a page has them under its name.
 *
 * @param key name of its folder
 * @param label as people read it
 * @param about one sentence, what it is for
 * @param html one element with all that is in it, bound by attributes to the keys below
 * @param css whose {@code :scope} is that element
 * @param settings in the order in which owners are asked
 * @param pictures and videos by their path in the folder
 * @param rem CSS px that 1rem has where it was made, 4 to 64; 16 unless it says otherwise
 * @param apart whether it looks as its own stylesheet says and nothing else: no rule around it counts for its elements, and it inherits
 *     what that stylesheet leaves to it only
 */
public record SectionKit(
        String key,
        String label,
        String about,
        String html,
        String css,
        List<Setting> settings,
        SortedMap<String, byte[]> pictures,
        double rem,
        boolean apart) {
    /** What browsers give 1rem where no page says otherwise (common practice). */
    static final double USUAL_REM = 16;

    public static final String FOLDER = Theme.SECTIONS;
    public static final String JSON = Theme.SECTION;
    public static final String HTML = "section.html";
    public static final String CSS = "section.css";
    /** Bytes of markup and of stylesheet. */
    public static final int LARGEST = 200_000;

    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    /** All sections that a theme keeps, in order of their folders. @throws BadInputException if one cannot be used */
    public static List<SectionKit> of(ThemeFiles files) {
        List<SectionKit> all = new ArrayList<>();
        for (String path : files.paths()) {
            if (path.startsWith(FOLDER)
                    && path.endsWith("/" + JSON)
                    && path.indexOf('/', FOLDER.length()) == path.length() - JSON.length() - 1) {
                all.add(read(files, path.substring(0, path.length() - JSON.length())));
            }
        }
        return all;
    }

    /**
     * @param folder with the slash at its end
     * @throws BadInputException with file and place, if it cannot be used
     */
    public static SectionKit read(ThemeFiles files, String folder) {
        TreeMap<String, byte[]> pictures = new TreeMap<>();
        for (String path : files.paths()) {
            String inside = path.startsWith(folder) ? path.substring(folder.length()) : "";
            if (!inside.isEmpty() && !List.of(JSON, HTML, CSS).contains(inside)) {
                pictures.put(inside, files.read(path));
            }
        }
        String key = folder.replaceFirst("/$", "").replaceFirst(".*/", "");
        return read(key, text(files, folder + JSON), text(files, folder + HTML), text(files, folder + CSS), pictures);
    }

    private static String text(ThemeFiles files, String path) {
        if (!files.has(path)) {
            throw new BadInputException(
                    "The file " + path + " is missing.", "Add it: a section has markup, stylesheet and settings.");
        }
        if (files.size(path) > LARGEST) {
            throw new BadInputException(
                    path + " is larger than " + LARGEST / 1000 + " kB.", "Make two sections of it.");
        }
        return new String(files.read(path), StandardCharsets.UTF_8).replace("\r\n", "\n");
    }

    /** @throws BadInputException with file and line or place, if it cannot be used */
    public static SectionKit read(
            String key, String json, String html, String css, SortedMap<String, byte[]> pictures) {
        if (!key.matches("[a-z][a-z0-9-]{0,30}")) {
            throw new BadInputException(
                    "“" + key + "” is no name of a section.",
                    "Use small letters, digits and hyphens, with a letter first.");
        }
        JsonNode root;
        try {
            root = MAPPER.readTree(json);
        } catch (JacksonException e) {
            int line = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getLineNr());
            throw new BadInputException(
                    JSON + ", line " + line + ": this is not JSON. " + e.getOriginalMessage(),
                    "Write {\"label\": \"…\", \"settings\": []}.");
        }
        List<Setting> settings = new ArrayList<>();
        int at = 0;
        for (JsonNode node : root.path("settings")) {
            Value.Parts parts = Value.of(node) instanceof Value.Parts p ? p : Value.parts();
            try {
                Setting s = PaletteJson.readSetting(parts.with("place", Value.of(key)), Bands.USUAL);
                if (settings.stream().anyMatch(o -> o.key().equals(s.key()))) {
                    throw new BadInputException(
                            "the key “" + s.key() + "” is there twice", "Give one of the two another key.");
                }
                settings.add(s);
            } catch (BadInputException e) {
                throw new BadInputException(
                        JSON + ", line "
                                + new JsonLines(json.getBytes(StandardCharsets.UTF_8)).line("settings[" + at + "]")
                                + ", settings[" + at + "]: " + e.getMessage(),
                        e.mend());
            }
            at++;
        }
        String label = root.path("label").asString(key);
        if (label.isBlank() || label.length() > 60) {
            throw new BadInputException(JSON + ": the label is empty or too long.", "Write 1 to 60 characters.");
        }
        pictures.forEach((path, bytes) -> picture(path, bytes));
        SectionKit kit = new SectionKit(
                key,
                label,
                root.path("about").asString(""),
                html.stripTrailing(),
                css.stripTrailing(),
                List.copyOf(settings),
                pictures,
                rem(root),
                root.path("apart").asBoolean(false));
        kit.root(kit.page());
        SectionSheet.check(kit);
        return kit;
    }

    private static double rem(JsonNode root) {
        double rem = root.path("rem").asDouble(USUAL_REM);
        if (!(rem >= 4 && rem <= 64)) {
            throw new BadInputException(
                    JSON + ": “rem” is " + rem + ".", "Write how many px 1rem has where it was made, from 4 to 64.");
        }
        return rem;
    }

    /**
     * As large in a theme as where it was made: lengths in rem are of the root element's font size (CSS Values 4, section 6.1.1), and
     * many themes have another one than 16 px.
     */
    SectionKit in(Theme theme) {
        double there = remOf(theme);
        BigDecimal factor = BigDecimal.valueOf(rem / there).setScale(4, RoundingMode.HALF_UP);
        if (factor.subtract(BigDecimal.ONE).abs().doubleValue() < NEARLY) {
            return this;
        }
        ObjectNode scaled = (ObjectNode) MAPPER.readTree(json(label));
        scale(scaled, factor);
        scaled.put("rem", there);
        Stylesheet sheet = Stylesheet.read(SourceText.of(CSS, css));
        List<Edit> edits = new ArrayList<>();
        // Conditions are left as they are: there a rem is what the browser gives it (Media Queries 4, section 1.3).
        sheet.eachDeclaration(
                (d, around) -> edits.addAll(scaled(sheet.tokens(), d.valueFirst(), d.valueEnd(), factor)));
        return read(
                key,
                PaletteJson.text(scaled),
                html,
                new String(sheet.source().withEdits(edits), StandardCharsets.UTF_8),
                pictures);
    }

    private static final double NEARLY = 0.02;

    /** CSS px of 1rem on the first page of a theme, in a wide window. */
    static double remOf(Theme theme) {
        return theme.pages().isEmpty()
                ? USUAL_REM
                : remOf(new Rendered(theme), theme.pages().get(0));
    }

    static double remOf(Rendered rendered, Page page) {
        Element root = page.document().firstElementChild();
        double px = root == null
                ? USUAL_REM
                : rendered.styles(page, Viewport.of(1440, 900), States.NONE)
                        .of(root)
                        .fontSizePx();
        return px >= 4 && px <= 64 ? px : USUAL_REM;
    }

    private static void scale(JsonNode node, BigDecimal factor) {
        if (node instanceof ObjectNode object) {
            boolean rem = object.path("unit").asString("").equals("rem");
            for (String name : object.propertyNames()) {
                JsonNode value = object.get(name);
                if (rem && value.isNumber()) {
                    object.put(name, value.decimalValue().multiply(factor).stripTrailingZeros());
                } else if (name.equals("css") && value.isString()) {
                    SourceText text = SourceText.of(CSS, value.asString());
                    Tokens tokens = Tokenizer.tokenize(value.asString());
                    object.put(
                            name,
                            new String(
                                    text.withEdits(scaled(tokens, 0, tokens.size(), factor)), StandardCharsets.UTF_8));
                } else {
                    scale(value, factor);
                }
            }
        } else {
            node.forEach(n -> scale(n, factor));
        }
    }

    private static List<Edit> scaled(Tokens tokens, int first, int end, BigDecimal factor) {
        List<Edit> edits = new ArrayList<>();
        for (int i = first; i < end; i++) {
            if (tokens.is(i, TokenType.DIMENSION) && tokens.value(i).equalsIgnoreCase("rem")) {
                BigDecimal length = BigDecimal.valueOf(tokens.number(i)).multiply(factor);
                edits.add(new Edit(
                        tokens.start(i),
                        tokens.end(i),
                        length.stripTrailingZeros().toPlainString() + "rem"));
            }
        }
        return edits;
    }

    private static void picture(String path, byte[] bytes) {
        String format = Paths.ending(path).replace("jpeg", "jpg");
        if (!PictureKind.FORMATS.contains(format) && !VideoKind.FORMATS.contains(format)
                || !path.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} ._/-]*")) {
            throw new BadInputException(
                    "“" + path + "” is no picture or video for a section.",
                    "Beside " + JSON + ", " + HTML + " and " + CSS + " there are pictures and videos only.");
        }
        PictureFile.named(path, bytes);
    }

    /** The markup as a page. */
    Page page() {
        return Page.read(HTML, ("<!doctype html><body>" + html + "</body>").getBytes(StandardCharsets.UTF_8));
    }

    /** @throws BadInputException if the markup is not one element that is closed, or holds what may not be in it */
    Element root(Page page) {
        SectionSafety.check(html);
        List<Element> all = page.document().body().children();
        Element one = all.size() == 1 && page.document().body().ownText().isBlank() ? all.get(0) : null;
        if (one == null || page.inside(one).isEmpty()) {
            throw new BadInputException(
                    HTML + ": a section is one element with a start and an end tag, and all that is in it.",
                    "Put everything into <section> … </section>.");
        }
        for (Element e : one.getAllElements()) {
            int line = page.source().line(Math.max(0, e.sourceRange().startPos()));
            e.attributes().forEach(a -> {
                boolean bound = a.getKey().startsWith("data-setting-");
                if (bound && settings.stream().noneMatch(s -> s.key().equals(a.getValue()))) {
                    throw new BadInputException(
                            HTML + ", line " + line + ": there is no setting “" + a.getValue() + "”.",
                            "Add it to " + JSON + ", or bind another one.");
                }
            });
        }
        return one;
    }

    /** The file that says what its settings are, under another label. */
    public String json(String label) {
        ObjectNode root = MAPPER.createObjectNode();
        root.put("format", 1).put("label", label).put("about", about);
        if (rem != USUAL_REM) {
            root.put("rem", rem);
        }
        if (apart) {
            root.put("apart", true);
        }
        ArrayNode all = root.putArray("settings");
        settings.forEach(s -> {
            ObjectNode node = (ObjectNode) PaletteJson.write(s).json();
            node.remove("place");
            all.add(node);
        });
        return PaletteJson.text(root);
    }

    /** The files of its folder, as a theme keeps it. */
    public SortedMap<String, byte[]> files(String json) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        String folder = FOLDER + key + "/";
        files.put(folder + JSON, json.getBytes(StandardCharsets.UTF_8));
        files.put(folder + HTML, (html + "\n").getBytes(StandardCharsets.UTF_8));
        files.put(folder + CSS, (css + "\n").getBytes(StandardCharsets.UTF_8));
        pictures.forEach((path, bytes) -> files.put(folder + path, bytes));
        return files;
    }

    /** Where a picture of it lies in a theme. */
    String pathOf(String picture) {
        return "img/" + key + "-" + picture.substring(picture.lastIndexOf('/') + 1);
    }
}
