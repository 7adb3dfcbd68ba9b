package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/**
 * That no choice leaves an empty shell: a link, button or heading without words (WCAG 2.2, 2.4.4, 4.1.2 and 1.3.1), a picture in a link
 * without a description, a second first heading (common practice), a link to a page or anchor that is not there. Each part that is bound
 * to a setting is asked by itself, with the emptiest that its limits allow and all else as made; so is each page as it is made.
 */
final class Whole {
    private static final String NAMED = "a[href], button, h1, h2, h3, h4, h5, h6";

    private final Theme theme;
    private final List<Answer> all = new ArrayList<>();

    private Whole(Theme theme) {
        this.theme = theme;
    }

    static List<Answer> of(Theme theme) {
        Whole whole = new Whole(theme);
        for (Page page : theme.pages()) {
            whole.asMade(page);
            whole.bound(page);
        }
        return whole.all;
    }

    private void asMade(Page page) {
        int before = all.size();
        List<Element> first = page.document().select("h1:not([hidden])");
        if (first.size() > 1) {
            broken(page, first.get(1), Map.of(), "The page has " + first.size() + " first-level headings.");
        }
        for (Element e : page.document().select(NAMED)) {
            if (e.attributes().asList().stream().noneMatch(a -> a.getKey().startsWith("data-setting-"))
                    && !isNamed(e, null)
                    && page.elements().contains(e)
                    && e.parents().stream()
                            .noneMatch(p ->
                                    p.hasAttr("hidden") || p.attr("aria-hidden").equals("true"))
                    && !e.attr("aria-hidden").equals("true")) {
                broken(page, e, Map.of(), what(e) + " has no words, and no other name.");
            }
            String why = e.normalName().equals("a") ? Links.leadsNowhere(theme, page, e.attr("href")) : "";
            if (!why.isEmpty() && !e.hasAttr(Binding.HREF.attribute())) {
                broken(page, e, Map.of(), why);
            }
        }
        if (all.size() == before) {
            all.add(Answer.kept(Promise.WHOLE, Answer.Subject.page(page)));
        }
    }

    private void bound(Page page) {
        for (Element e : page.elements()) {
            for (Binding b : Binding.values()) {
                theme.palette()
                        .setting(e.attr(b.attribute()))
                        .filter(s -> s.kind().bindings().contains(b))
                        .ifPresent(s -> ask(page, e, b, s.kind(), s, null));
            }
            theme.palette()
                    .setting(e.attr(Binding.ITEMS.attribute()))
                    .filter(s -> s.kind() instanceof ItemsKind)
                    .ifPresent(s -> items(page, e, s));
        }
    }

    private void items(Page page, Element list, Setting s) {
        ItemsKind kind = (ItemsKind) s.kind();
        for (Element e : list.getAllElements()) {
            for (Binding b : Binding.values()) {
                ItemsKind.Part part = kind.parts().get(e.attr(b.itemAttribute()));
                if (part != null && page.elements().contains(e)) {
                    ask(page, e, b, part.kind(), s, e.attr(b.itemAttribute()));
                }
            }
        }
    }

    /** @param part of an item that is asked, or null for the setting itself */
    private void ask(Page page, Element e, Binding b, Kind kind, Setting s, String part) {
        Value emptiest = null;
        String why = "";
        Element named = e.closest(NAMED);
        switch (b) {
            case TEXT -> {
                boolean mayBeEmpty = kind instanceof TextKind t && t.least() == 0;
                if (mayBeEmpty && named != null && !isNamed(named, e)) {
                    emptiest = Value.of("");
                    why = what(named) + " is left without words.";
                }
            }
            case ALT -> {
                boolean mayBeEmpty = kind instanceof TextKind t && t.least() == 0;
                if (mayBeEmpty && named != null && !isNamed(named, e)) {
                    emptiest = Value.of("");
                    why = what(named) + " has a picture alone, and is left without a name.";
                }
            }
            case SRC -> {
                boolean mayBeEmpty = kind instanceof PictureKind p && p.none();
                if (mayBeEmpty && named != null && e.normalName().equals("img") && !isNamed(named, e)) {
                    emptiest = Value.of("");
                    why = what(named) + " is left without its picture, and has no words.";
                }
            }
            case HREF -> {
                if (kind instanceof LinkKind link && link.targets().isEmpty()) {
                    emptiest = Value.of("no-such-page.html");
                    why = "It may lead to a page that is not there: what it leads to is not limited.";
                } else if (kind instanceof LinkKind link && link.targets().contains("anchor")) {
                    emptiest = Value.of("#no-such-anchor");
                    why = "It may lead to an anchor that is not there.";
                }
            }
            case LEVEL -> {
                boolean another = page.document().select("h1").stream().anyMatch(h -> h != e);
                if (kind instanceof LevelKind level && level.least() == 1 && another) {
                    emptiest = Value.of(java.math.BigDecimal.ONE);
                    why = "The page has a first-level heading already.";
                }
            }
            case SHOW -> {
                if (kind instanceof YesNoKind) {
                    String anchor = e.getAllElements().stream()
                            .map(Element::id)
                            .filter(id -> !id.isEmpty() && isLinkedTo(page, id, e))
                            .findFirst()
                            .orElse("");
                    if (!anchor.isEmpty()) {
                        emptiest = new Value.Flag(false);
                        why = "Links to #" + anchor + " lead to nothing when it is not shown.";
                    }
                }
            }
            default -> {
                return;
            }
        }
        if (emptiest == null) {
            all.add(Answer.kept(Promise.WHOLE, Answer.Subject.part(page, e, 0)));
        } else {
            broken(page, e, Map.of(s.key(), part == null ? emptiest : inFirstItem(s, part, emptiest)), why);
        }
    }

    /** The list as it is made, with one part of its first item. */
    private Value inFirstItem(Setting s, String part, Value value) {
        Value made = org.calmpalette.core.output.ThemeBuild.defaults(theme)
                .value(s, theme.palette().bands().widest());
        List<Value> items = new ArrayList<>(((Value.Many) made).items());
        Map<String, Value> first =
                new LinkedHashMap<>(items.isEmpty() ? Map.of() : ((Value.Parts) items.get(0)).parts());
        first.put(part, value);
        if (items.isEmpty()) {
            items.add(new Value.Parts(first));
        } else {
            items.set(0, new Value.Parts(first));
        }
        return new Value.Many(items);
    }

    private void broken(Page page, Element e, Map<String, Value> choices, String why) {
        Map<String, Chosen> chosen = theme.palette().chosen(choices);
        if (!Effective.of(theme.palette(), chosen, theme.media()).leftOut().isEmpty()) {
            // Another limit keeps it from being chosen.
            all.add(Answer.kept(Promise.WHOLE, Answer.Subject.part(page, e, 0)));
            return;
        }
        all.add(Answer.broken(Promise.WHOLE, Answer.Subject.part(page, e, 0), choices, why));
    }

    private static String what(Element e) {
        return switch (e.normalName()) {
            case "a" -> "The link";
            case "button" -> "The button";
            default -> "The heading";
        };
    }

    /**
     * Whether a part has a name (Accessible Name and Description Computation 1.2, the steps for links, buttons and headings).
     *
     * @param without what is taken to be empty, or null
     */
    private static boolean isNamed(Element e, Element without) {
        if (!e.attr("aria-label").isBlank()
                || !e.attr("aria-labelledby").isBlank()
                || !e.attr("title").isBlank()) {
            return true;
        }
        for (Element inner : e.getAllElements()) {
            if (without != null && (inner == without || without.getAllElements().contains(inner))) {
                continue;
            }
            boolean says = !inner.ownText().isBlank()
                    || inner.normalName().equals("img") && !inner.attr("alt").isBlank()
                    || inner.normalName().equals("svg") && inner.selectFirst("title") != null
                    || !inner.attr("aria-label").isBlank();
            if (says) {
                return true;
            }
        }
        return false;
    }

    private boolean isLinkedTo(Page page, String id, Element hidden) {
        return page.document().select("a[href]").stream()
                .anyMatch(a -> a.attr("href").equals("#" + id) && !a.parents().contains(hidden) && a != hidden);
    }
}
