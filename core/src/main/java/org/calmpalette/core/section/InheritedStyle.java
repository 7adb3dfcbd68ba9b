package org.calmpalette.core.section;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Gathered;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** What a part of a page has from around it: inherited values, what its parent makes of its display, how deep it is among lists. */
final class InheritedStyle {
    /** Inherited from around the part: these make it look as it does. */
    private static final List<String> HANDED_DOWN = List.of(
            "color",
            "font-family",
            "font-size",
            "font-weight",
            "font-style",
            "line-height",
            "letter-spacing",
            "text-align",
            "text-transform",
            "list-style",
            "white-space",
            "word-spacing",
            "text-indent",
            "border-collapse",
            "direction",
            "font-variant",
            "text-shadow",
            "text-align-last",
            "word-break",
            "overflow-wrap",
            "hyphens",
            "cursor",
            "visibility",
            "quotes",
            "tab-size",
            "border-spacing",
            "caption-side",
            "color-scheme");

    /** The fonts of {@code font: inherit}, each by itself. */
    private static final List<String> FONT =
            List.of("font-style", "font-weight", "font-size", "line-height", "font-family");

    private static final List<String> LISTS = List.of("ul", "ol", "menu", "dir");

    private final Rendered rendered;
    private final Element root;
    private final PageStyles styles;

    InheritedStyle(Rendered rendered, Page page, Element root) {
        this.rendered = rendered;
        this.root = root;
        this.styles = rendered.styles(page, Viewport.of(1440, 900), States.NONE);
    }

    /** The rule of the section itself, and how its lists are marked. @param variables that its rules read */
    String rules(Set<String> variables) {
        return handedDown(variables) + lists();
    }

    /** A declaration of the part itself: what it takes from around it is written out, and so is what its parent makes of its display. */
    String ofRoot(Gathered.Declared declared) {
        String property = declared.property();
        if (property.startsWith("--")) {
            return declared.toString();
        }
        String value = declared.value().strip().toLowerCase(Locale.ROOT);
        boolean handedOn = property.equals("font") || Painting.isInherited(property);
        // A custom property that holds nothing makes the whole declaration one that was never written.
        boolean inherits = value.equals("inherit")
                || value.equals("unset") && handedOn
                || !declared.reads().isEmpty()
                        && handedOn
                        && Painting.declared(styles.of(root), property)
                                .map(String::strip)
                                .filter(v -> !v.isEmpty() && !v.equals("unset") && !v.equals("inherit"))
                                .isEmpty();
        if (inherits) {
            String important = declared.important() ? " !important" : "";
            List<String> written = (property.equals("font") ? FONT : List.of(property))
                    .stream()
                            .filter(p -> !from(root.parent(), p).isBlank())
                            .map(p -> p + ": " + from(root.parent(), p) + important)
                            .toList();
            return written.isEmpty() ? declared.toString() : String.join("; ", written);
        }
        return property.equals("display") && isItem()
                ? declared.with(blockified(value)).toString()
                : declared.toString();
    }

    /** The value that an element has of an inherited property; empty if that is not known, or the one that all have. */
    private String from(Element element, String property) {
        if (Painting.isComputed(property)) {
            return styles.of(element).computed(property);
        }
        for (Element at = element; at != null && !at.normalName().equals("#root"); at = at.parent()) {
            Element here = at;
            ElementStyle style = styles.of(at);
            // Browsers give lists their marks by the longhand, makers by the shorthand as well.
            String value = Painting.declared(style, property)
                    .or(() -> property.equals("list-style")
                            ? Painting.declared(style, "list-style-type").or(() -> marks(here))
                            : Optional.empty())
                    .orElse("inherit");
            if (!value.equals("inherit") && !value.equals("unset")) {
                return value;
            }
        }
        return "";
    }

    private static int listsAround(Element e) {
        return (int)
                e.parents().stream().filter(p -> LISTS.contains(p.normalName())).count();
    }

    /** The marks that browsers give a list by how deep it is among lists (HTML, section 15.3.8). */
    private static Optional<String> marks(Element list) {
        return !LISTS.contains(list.normalName())
                ? Optional.empty()
                : Optional.of(list.normalName().equals("ol") ? "decimal" : marks(listsAround(list)));
    }

    private static String marks(int around) {
        return around == 0 ? "disc" : around == 1 ? "circle" : "square";
    }

    /** Lists in the part are as deep as they were: browsers give them marks and margins by that. */
    private String lists() {
        int around = listsAround(root) + (LISTS.contains(root.normalName()) ? 1 : 0);
        boolean any = root.getAllElements().stream().skip(1).anyMatch(e -> LISTS.contains(e.normalName()));
        if (listsAround(root) == 0 || !any) {
            return "";
        }
        return ":where(ul, ol, menu, dir) {\n  margin-block: 0;\n}\n:where(ul, menu, dir) {\n  list-style-type: "
                + marks(around)
                + ";\n}\n"
                + (around > 1
                        ? ""
                        : ":where(:is(ul, ol, menu, dir) :is(ul, menu, dir)) {\n  list-style-type: " + marks(around + 1)
                                + ";\n}\n");
    }

    private static boolean isByRule(ElementStyle style, String property) {
        Explanation why = Explanation.of(style, property);
        return why.winner() != null
                && why.inheritedFrom() == null
                && why.winner().origin() != Origin.USER_AGENT;
    }

    private boolean isItem() {
        return styles.of(root.parent()).computed("display").matches("(inline-)?(flex|grid)");
    }

    /** What a flex or grid container makes of the display of its items (CSS Display 3, section 2.7). */
    private static String blockified(String display) {
        return display.equals("inline") || display.equals("inline-block")
                ? "block"
                : display.replaceFirst("^inline-(?=flex|grid|table)", "");
    }

    /** What comes from around the part: inherited properties, and custom properties of the theme that its rules read. */
    private String handedDown(Set<String> variables) {
        ElementStyle style = styles.of(root);
        StringBuilder out = new StringBuilder(":scope {\n");
        for (String property : HANDED_DOWN) {
            // What a browser gives an element of its own accord, as letters to a button, stays; what rules give it
            // comes after this.
            String value = from(isByRule(style, property) ? root.parent() : root, property);
            // Elsewhere something else may come from around it.
            String said = value.isBlank() ? "initial" : value;
            out.append("  ").append(property).append(": ").append(said).append(";\n");
        }
        String display = style.computed("display");
        if (isItem() && !isByRule(style, "display") && !blockified(display).equals(display)) {
            out.append("  display: ").append(blockified(display)).append(";\n");
        }
        for (String name : variables) {
            if (!rendered.theme().palette().properties().containsKey(name)) {
                style.variable(name).filter(v -> !v.isBlank()).ifPresent(v -> out.append("  ")
                        .append(name)
                        .append(": ")
                        .append(v.strip())
                        .append(";\n"));
            }
        }
        return out.append("}\n").toString();
    }
}
