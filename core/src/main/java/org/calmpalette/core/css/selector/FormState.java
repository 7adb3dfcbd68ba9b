package org.calmpalette.core.css.selector;

import java.util.Locale;
import java.util.Set;
import org.jsoup.nodes.Element;

/** Pseudo-classes that follow from the markup of links and form parts: HTML Standard, section 4.16.3. */
final class FormState {
    private static final Set<String> TEXT_TYPES = Set.of(
            "",
            "text",
            "search",
            "url",
            "tel",
            "email",
            "password",
            "date",
            "month",
            "week",
            "time",
            "datetime-local",
            "number");
    private static final Set<String> KNOWN_TYPES = Set.of(
            "text",
            "search",
            "url",
            "tel",
            "email",
            "password",
            "date",
            "month",
            "week",
            "time",
            "datetime-local",
            "number",
            "range",
            "color",
            "checkbox",
            "radio",
            "file",
            "submit",
            "image",
            "reset",
            "button",
            "hidden");

    private FormState() {}

    static boolean isLink(Element e) {
        String name = e.normalName();
        return (name.equals("a") || name.equals("area")) && (e.hasAttr("href") || e.hasAttr("xlink:href"));
    }

    static boolean matches(String pseudoClass, Element e) {
        return switch (pseudoClass) {
            case "disabled" -> canBeDisabled(e) && isDisabled(e);
            case "enabled" -> canBeDisabled(e) && !isDisabled(e);
            case "checked" -> isChecked(e);
            case "required" -> takesRequired(e) && e.hasAttr("required");
            case "optional" ->
                (isField(e) || e.normalName().equals("button")) && !(takesRequired(e) && e.hasAttr("required"));
            case "read-write" -> isReadWrite(e);
            case "read-only" -> !isReadWrite(e) && !SelectorMatcher.isForeign(e);
            case "placeholder-shown" -> isPlaceholderShown(e);
            case "indeterminate" -> isIndeterminate(e);
            case "default" -> isDefault(e);
            case "valid" -> validates(e) && isValid(e);
            case "invalid" -> validates(e) && !isValid(e);
            case "in-range" -> Constraints.hasRange(e) && Constraints.isInRange(e);
            case "out-of-range" -> Constraints.hasRange(e) && !Constraints.isInRange(e);
            case "open" -> (e.normalName().equals("details") || e.normalName().equals("dialog")) && e.hasAttr("open");
            default -> false;
        };
    }

    static String type(Element e) {
        String type = e.attr("type").toLowerCase(Locale.ROOT);
        return e.normalName().equals("input") ? KNOWN_TYPES.contains(type) ? type : "text" : type;
    }

    private static boolean isField(Element e) {
        return switch (e.normalName()) {
            case "input", "select", "textarea" -> true;
            default -> false;
        };
    }

    static boolean takesRequired(Element e) {
        return isField(e)
                && !(e.normalName().equals("input")
                        && Set.of("hidden", "range", "color", "submit", "image", "reset", "button")
                                .contains(type(e)));
    }

    private static boolean canBeDisabled(Element e) {
        return switch (e.normalName()) {
            case "button", "input", "select", "textarea", "optgroup", "option", "fieldset" -> true;
            default -> false;
        };
    }

    static boolean isDisabled(Element e) {
        if (e.hasAttr("disabled")) {
            return true;
        }
        if (e.normalName().equals("option")) {
            Element select = e.closest("select");
            // Chromium has the options of a select that is disabled disabled too.
            return isInDisabledGroup(e) || select != null && isDisabled(select);
        }
        if (e.normalName().equals("optgroup")) {
            return false;
        }
        Element below = e;
        for (Element a = e.parent(); a != null; below = a, a = a.parent()) {
            if (a.normalName().equals("fieldset") && a.hasAttr("disabled")) {
                Element legend = a.children().stream()
                        .filter(c -> c.normalName().equals("legend"))
                        .findFirst()
                        .orElse(null);
                if (legend == null || legend != below) {
                    return true;
                }
            }
        }
        return false;
    }

    private static boolean isInDisabledGroup(Element option) {
        Element group = option.closest("optgroup, select");
        return group != null && group.normalName().equals("optgroup") && group.hasAttr("disabled");
    }

    private static boolean isChecked(Element e) {
        if (e.normalName().equals("option")) {
            return isSelected(e);
        }
        return e.normalName().equals("input")
                && (type(e).equals("checkbox") || type(e).equals("radio"))
                && e.hasAttr("checked")
                && !laterInGroupIsChecked(e);
    }

    /** Of several checked radio buttons in a group, the last one is. */
    private static boolean laterInGroupIsChecked(Element e) {
        if (!type(e).equals("radio") || e.attr("name").isEmpty()) {
            return false;
        }
        boolean after = false;
        for (Element other : group(e)) {
            if (other == e) {
                after = true;
            } else if (after && other.hasAttr("checked")) {
                return true;
            }
        }
        return false;
    }

    static java.util.List<Element> group(Element radio) {
        Element form = radio.closest("form");
        Element root = form == null ? radio.root() : form;
        return root.getAllElements().stream()
                .filter(o -> o.normalName().equals("input")
                        && type(o).equals("radio")
                        && o.attr("name").equals(radio.attr("name"))
                        && o.closest("form") == form)
                .toList();
    }

    private static boolean isSelected(Element option) {
        Element select = option.closest("select");
        if (select == null || select.hasAttr("multiple")) {
            return option.hasAttr("selected");
        }
        Element chosen = null;
        Element first = null;
        for (Element o : select.getElementsByTag("option")) {
            chosen = o.hasAttr("selected") ? o : chosen;
            first = first == null && !o.hasAttr("disabled") && !isInDisabledGroup(o) ? o : first;
        }
        boolean listBox = !select.attr("size").isEmpty() && !select.attr("size").equals("1");
        return option == (chosen != null ? chosen : listBox ? null : first);
    }

    private static boolean isReadWrite(Element e) {
        if (e.normalName().equals("textarea") || e.normalName().equals("input") && TEXT_TYPES.contains(type(e))) {
            return !e.hasAttr("readonly") && !isDisabled(e);
        }
        for (Element a = e; a != null; a = a.parent()) {
            // A word that is none of these counts as not written.
            String editable =
                    a.hasAttr("contenteditable") ? a.attr("contenteditable").toLowerCase(Locale.ROOT) : "inherit";
            if (Set.of("", "true", "plaintext-only", "false").contains(editable)) {
                return !editable.equals("false");
            }
        }
        return false;
    }

    private static boolean isPlaceholderShown(Element e) {
        boolean takes = e.normalName().equals("textarea")
                || e.normalName().equals("input")
                        && Set.of("text", "search", "url", "tel", "email", "password", "number")
                                .contains(type(e));
        return takes && e.hasAttr("placeholder") && value(e).isEmpty();
    }

    static String value(Element e) {
        return e.normalName().equals("textarea") ? e.wholeText() : e.attr("value");
    }

    private static boolean isIndeterminate(Element e) {
        if (e.normalName().equals("progress")) {
            return !e.hasAttr("value");
        }
        return e.normalName().equals("input")
                && type(e).equals("radio")
                && (e.attr("name").isEmpty()
                        ? !e.hasAttr("checked")
                        : group(e).stream().noneMatch(o -> o.hasAttr("checked")));
    }

    private static boolean isDefault(Element e) {
        String type = type(e);
        if (e.normalName().equals("option")) {
            return e.hasAttr("selected");
        }
        if (e.normalName().equals("input") && (type.equals("checkbox") || type.equals("radio"))) {
            return e.hasAttr("checked");
        }
        Element form = e.closest("form");
        return form != null
                && isSubmit(e)
                && form.getAllElements().stream()
                                .filter(FormState::isSubmit)
                                .findFirst()
                                .orElse(null)
                        == e;
    }

    private static boolean isSubmit(Element e) {
        return e.normalName().equals("button") && (type(e).isEmpty() || type(e).equals("submit"))
                || e.normalName().equals("input") && (type(e).equals("submit") || type(e).equals("image"));
    }

    private static boolean validates(Element e) {
        return switch (e.normalName()) {
            case "form", "fieldset" -> true;
            case "input" ->
                !Set.of("hidden", "reset", "button", "image").contains(type(e)) && !isDisabled(e) && canBeEdited(e);
            case "select" -> !isDisabled(e);
            case "textarea" -> !isDisabled(e) && !e.hasAttr("readonly");
            case "button" -> !isDisabled(e) && (type(e).isEmpty() || type(e).equals("submit"));
            default -> false;
        };
    }

    private static boolean canBeEdited(Element e) {
        return !(e.hasAttr("readonly") && TEXT_TYPES.contains(type(e)));
    }

    private static boolean isValid(Element e) {
        switch (e.normalName()) {
            case "form", "fieldset" -> {
                return e.getAllElements().stream().noneMatch(c -> c != e && isField(c) && validates(c) && !isValid(c));
            }
            case "select" -> {
                if (!e.hasAttr("required")) {
                    return true;
                }
                return e.getElementsByTag("option").stream()
                        .anyMatch(o -> isSelected(o) && !(o.hasAttr("value") ? o.attr("value") : o.text()).isEmpty());
            }
            case "textarea" -> {
                return !(e.hasAttr("required") && value(e).isEmpty());
            }
            case "input" -> {
                return Constraints.isValid(e);
            }
            default -> {
                return true;
            }
        }
    }
}
