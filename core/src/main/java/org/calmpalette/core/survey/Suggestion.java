package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.part.SeenName;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorProperties;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.Comments;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Element;

/** A key, a label and a place for a new setting, drawn from what the chosen uses paint. */
public record Suggestion(String key, String label, String place) {
    private static final Pattern NAME = Pattern.compile("[.#]?-?[_a-zA-Z][\\w-]*");
    private static final Pattern IGNORED = Pattern.compile("\\[[^\\]]*\\]|::?[\\w-]+(\\([^)]*\\))?");
    private static final Set<String> ROLES = Set.of("fill", "text", "line", "shadow", "icon", "color");
    private static final Set<String> GENERAL = Set.of("html", "body", "root");

    private static final int LONGEST_NAME = 40;
    /** What more rules paint is no one thing. */
    private static final int MOST_PAINTS = 12;

    public static Suggestion of(List<ColorUse> uses, Rendered rendered, Set<String> taken) {
        Theme theme = rendered.theme();
        ColorUse first = uses.get(0);
        String comment = uses.stream().map(ColorUse::comment).distinct().count() == 1 ? first.comment() : "";
        String selector = first.selector();
        if (selector.equals(Readers.STYLE_ATTRIBUTE) && !first.paints().isEmpty()) {
            selector = named(first.paints().get(0).selector(), theme);
        }
        String role = ColorProperties.role(first.property());
        List<String> roles = uses.stream()
                .flatMap(u -> u.paints().stream())
                .map(p -> roleWord(p.property(), ColorProperties.role(p.property())))
                .distinct()
                .toList();
        String seen = first.property().startsWith("--")
                ? ""
                : seen(
                        roles.size() == 1 ? roles.get(0) : "Colour",
                        uses.stream()
                                .flatMap(u -> u.paints().stream())
                                .distinct()
                                .toList(),
                        rendered);
        return of(
                words(first.property(), selector, role),
                comment,
                first.property(),
                role,
                first.paints(),
                seen,
                theme,
                taken);
    }

    /** For a part of a page, by what finds it. */
    public static Suggestion of(Painted painted, String comment, Rendered rendered, Set<String> taken) {
        return of(painted, comment, ColorProperties.role(painted.property()), rendered, taken);
    }

    /** @param role of the setting for the part, as the last word of its name: fill, text, picture */
    public static Suggestion of(Painted painted, String comment, String role, Rendered rendered, Set<String> taken) {
        Theme theme = rendered.theme();
        return of(
                words(painted.property(), named(painted.selector(), theme), role),
                comment,
                painted.property(),
                role,
                List.of(painted),
                seen(roleWord(painted.property(), role), List.of(painted), rendered),
                theme,
                taken);
    }

    /** What a setting is called by what one sees of it: “Text of the buttons, pointed at”; empty where that is no one thing. */
    private static String seen(String what, List<Painted> paints, Rendered rendered) {
        List<String> whenever =
                paints.stream().map(p -> stateWords(p.whenever())).distinct().toList();
        return whenever.size() != 1 || paints.size() > MOST_PAINTS
                ? ""
                : SeenName.of(paints, rendered)
                        .map(name -> what + " of " + name + whenever.get(0))
                        .orElse("");
    }

    private static String stateWords(String whenever) {
        return whenever.contains(":hover")
                ? ", pointed at"
                : whenever.contains(":focus")
                        ? ", in focus"
                        : whenever.contains(":active")
                                ? ", pressed"
                                : whenever.contains(":visited")
                                        ? ", visited"
                                        : whenever.contains(":disabled") ? ", switched off" : "";
    }

    /** What of a part a property sets, as one says it. */
    private static String roleWord(String property, String role) {
        if (role.equals("picture")) {
            return "Picture";
        }
        if (property.startsWith("border") && property.endsWith("radius")) {
            return "Corners";
        }
        if (property.startsWith("padding") || property.startsWith("margin") || property.endsWith("gap")) {
            return property.startsWith("padding")
                    ? "Room inside"
                    : property.startsWith("margin") ? "Room around" : "Gaps";
        }
        return switch (property) {
            case "color", "-webkit-text-fill-color" -> "Text";
            case "background", "background-color", "background-image" -> "Background";
            case "box-shadow", "filter" -> "Shadow";
            case "text-shadow" -> "Shadow of the letters";
            case "fill", "stroke" -> "Colour";
            case "font-size" -> "Text size";
            case "width", "min-width", "max-width", "inline-size", "max-inline-size" -> "Width";
            case "height", "min-height", "max-height", "block-size", "min-block-size" -> "Height";
            default -> {
                if (property.startsWith("border")) {
                    yield "Border";
                }
                if (property.startsWith("outline")) {
                    yield "Outline";
                }
                String words =
                        property.replaceFirst("^-[a-z]+-", "").replace('-', ' ').strip();
                yield words.isEmpty() ? "Look" : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
            }
        };
    }

    /** A style attribute says nothing of the part that has it, so that part is looked for. */
    private static String named(String selector, Theme theme) {
        if (!selector.startsWith("[style=")) {
            return selector;
        }
        for (Page page : theme.pages()) {
            for (Element e : page.document().select("[style]")) {
                if (selector.equals("[style=" + Escapes.string(e.attr("style")) + "]")) {
                    String name = e.className().strip().replaceFirst("\\s.*", "");
                    return !name.isEmpty() ? "." + name : !e.id().isEmpty() ? "#" + e.id() : e.normalName();
                }
            }
        }
        return "";
    }

    /** The comment above the rule of a declaration; empty if there is none. */
    public static String comment(Theme theme, String file, int start) {
        if (Theme.isGenerated(file)) {
            return "";
        }
        Located at = Located.find(theme, file, start);
        return Comments.above(at.part().sheet(), at.around());
    }

    private static Suggestion of(
            List<String> words,
            String comment,
            String property,
            String role,
            List<Painted> paints,
            String seen,
            Theme theme,
            Set<String> taken) {
        String base = String.join("-", words);
        if (base.length() > Setting.LONGEST_KEY - 4) {
            base = base.substring(0, Setting.LONGEST_KEY - 4).replaceAll("-$", "");
        }
        String key = base;
        for (int i = 2; isTaken(key, theme, taken); i++) {
            key = base + "-" + i;
        }
        // What the author calls the rule is the best label, if it is a name and no explanation.
        boolean named = !comment.isEmpty()
                && comment.length() <= LONGEST_NAME
                && !comment.contains(".")
                && !property.startsWith("--");
        String label = named
                ? comment + " " + role
                : !seen.isEmpty() && seen.length() <= Setting.LONGEST_LABEL
                        ? seen
                        : key.replace('-', ' ').replace('_', ' ').strip();
        return new Suggestion(
                key, label.substring(0, 1).toUpperCase(Locale.ROOT) + label.substring(1), place(paints, theme));
    }

    private static boolean isTaken(String key, Theme theme, Set<String> taken) {
        return theme.palette().setting(key).isPresent()
                || taken.contains("--" + key)
                || taken.contains("--" + key + "-rgb");
    }

    private static List<String> words(String property, String selector, String role) {
        if (property.startsWith("--")) {
            // A custom property names what it is for better than any rule does; a short prefix is its author's own.
            String name = property.substring(2).replaceFirst("-rgb$", "").replaceFirst("^[a-z]{2}-", "");
            List<String> words =
                    new ArrayList<>(List.of(name.toLowerCase(Locale.ROOT).split("[-_]+")));
            words.removeIf(String::isBlank);
            return words.isEmpty() || !Character.isLetter(words.get(0).charAt(0)) ? List.of("color") : words;
        }
        List<String> words = new ArrayList<>(List.of(subject(selector).split("[-_]+")));
        words.removeIf(String::isBlank);
        String state = state(selector);
        if (!state.isEmpty()) {
            words.add(state);
        }
        if (!ROLES.contains(words.get(words.size() - 1))) {
            words.add(role);
        }
        return words;
    }

    /** The name in the last compound of the first selector: class or id before element. */
    private static String subject(String selector) {
        String first =
                IGNORED.matcher(selector.split(",")[0]).replaceAll(" $0 ").strip();
        String bare = IGNORED.matcher(first).replaceAll(" ").strip();
        String[] compounds = bare.split("[\\s>+~]+");
        String last = compounds.length == 0 ? "" : compounds[compounds.length - 1];
        Matcher names = NAME.matcher(last);
        String found = "";
        while (names.find()) {
            String name = names.group();
            if (found.isEmpty() || name.startsWith(".") || name.startsWith("#")) {
                found = name;
            }
        }
        String name = found.replaceAll("^[.#]", "").toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9_-]", "");
        boolean named = found.startsWith(".") || found.startsWith("#");
        // A class that is called like an element is no such element.
        return switch (named && !name.isEmpty() ? "." + name : name) {
            case "a" -> "link";
            case "p" -> "paragraph";
            case "html", "body", "" -> selector.contains("root") || GENERAL.contains(name) ? "page" : "part";
            default ->
                !named && name.matches("h[1-6]")
                        ? "heading-" + name.charAt(1)
                        : Character.isLetter(name.charAt(0)) ? name : "part-" + name.replaceAll("^[-_]+", "");
        };
    }

    private static String state(String selector) {
        for (String state : List.of("hover", "focus", "active", "visited", "disabled")) {
            if (selector.split(",")[0].contains(":" + state)) {
                return state;
            }
        }
        return selector.contains("current") && !subject(selector).contains("current") ? "current" : "";
    }

    /** A landmark that the selector names, or one around the first element it finds. */
    private static String place(List<Painted> paints, Theme theme) {
        for (Painted painted : paints) {
            String found = Landmarks.around(painted.selector(), theme.pages());
            if (!found.isEmpty()) {
                return theme.palette().places().stream()
                        .filter(p -> p.key().equals(Place.keyOf(found)))
                        .findFirst()
                        .map(Place::label)
                        .orElse(found);
            }
        }
        return Place.EVERYWHERE.label();
    }
}
