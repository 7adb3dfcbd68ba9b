package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.usage.ColorProperties;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.Painted;

/**
 * Which of a theme's colours some page has a part for, and what each paints. A framework brings a hundred colours of which the pages
 * show a dozen. States count as if they were on, and a rule that another beats counts too: it shows in some window or state.
 *
 * @param onPages values of the colours that a rule gives to some part of a page
 * @param roles what a colour paints most, by its value: text, fill, line, shadow or icon
 */
public record ColorsInSight(Set<String> onPages, Map<String, String> roles) {
    /** In the order in which they are listed. */
    public static final List<String> ROLES = List.of("fill", "text", "line", "icon", "shadow");

    public static ColorsInSight of(List<ColorRow> rows, PartIndex parts) {
        Set<String> onPages = new LinkedHashSet<>();
        Map<String, String> roles = new HashMap<>();
        for (ColorRow row : rows) {
            Map<String, Set<String>> byRole = new TreeMap<>(Comparator.comparingInt(ROLES::indexOf));
            for (ColorUse use : row.uses()) {
                for (Painted p : use.paints()) {
                    byRole.computeIfAbsent(ColorProperties.role(p.property()), r -> new LinkedHashSet<>())
                            .add(p.selector());
                }
            }
            String most = "line";
            int best = -1;
            for (Map.Entry<String, Set<String>> e : byRole.entrySet()) {
                int count = parts.count(e.getValue()).parts();
                if (count > 0) {
                    onPages.add(row.value());
                }
                if (count > best) {
                    best = count;
                    most = e.getKey();
                }
            }
            roles.put(row.value(), most);
        }
        return new ColorsInSight(onPages, roles);
    }

    /** Rows by what they paint, each list in the order it came in. */
    public Map<String, List<ColorRow>> byRole(List<ColorRow> rows) {
        Map<String, List<ColorRow>> all = new LinkedHashMap<>();
        ROLES.forEach(r -> all.put(r, new ArrayList<>()));
        rows.forEach(r -> all.get(roles.getOrDefault(r.value(), "line")).add(r));
        all.values().removeIf(List::isEmpty);
        return all;
    }
}
