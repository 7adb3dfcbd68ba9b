package org.calmpalette.core.usage;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.calmpalette.core.color.Color;

/**
 * One colour and all its uses, in whatever spelling.
 *
 * @param value see {@link org.calmpalette.core.setting.ColorKey}
 */
public record ColorRow(String value, Color color, List<ColorUse> uses) {
    /** Everything that one might look for it by: spellings, selectors, files, properties. */
    public String words() {
        Set<String> words = new LinkedHashSet<>(List.of(value));
        for (ColorUse use : uses) {
            words.addAll(List.of(use.written(), use.selector(), use.file(), use.property(), use.comment()));
        }
        return String.join(" ", words);
    }

    /** The spellings, each once, in the order of the files. */
    public List<String> spellings() {
        return uses.stream().map(ColorUse::written).distinct().toList();
    }
}
