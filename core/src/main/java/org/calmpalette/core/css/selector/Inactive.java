package org.calmpalette.core.css.selector;

import java.util.Set;
import org.jsoup.nodes.Element;

/** Parts of the interface that nobody can use now: their words need no contrast (WCAG 2.2, success criterion 1.4.3, “Incidental”). */
public final class Inactive {
    private static final Set<String> CONTROLS =
            Set.of("button", "input", "select", "textarea", "optgroup", "option", "fieldset");

    private Inactive() {}

    /** Whether an element is a disabled form part, one that says so to screen readers, in one of these, or the label of one. */
    public static boolean holds(Element element) {
        for (Element e = element; e != null; e = e.parent()) {
            boolean disabled = CONTROLS.contains(e.normalName())
                    && !e.normalName().equals("fieldset")
                    && FormState.matches("disabled", e);
            if (disabled || e.attr("aria-disabled").equalsIgnoreCase("true") || isLabelOfOne(e)) {
                return true;
            }
        }
        return false;
    }

    private static boolean isLabelOfOne(Element e) {
        if (!e.normalName().equals("label")) {
            return false;
        }
        Element control = e.attr("for").isEmpty()
                ? e.selectFirst("button, input, select, textarea")
                : e.ownerDocument() == null ? null : e.ownerDocument().getElementById(e.attr("for"));
        return control != null && CONTROLS.contains(control.normalName()) && FormState.matches("disabled", control);
    }
}
