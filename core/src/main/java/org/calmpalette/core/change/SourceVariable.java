package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.theme.Theme;

/**
 * A colour that a source of a build keeps in a variable: {@code $name: value;} in SCSS, {@code @name: value;} in LESS.
 * Only plain values are read; expressions belong to the build.
 *
 * @param start offset of the value in the file's text
 */
public record SourceVariable(String file, int line, String name, String value, int start) {
    private static final Pattern VARIABLE =
            Pattern.compile("(?m)^[ \\t]*([$@][\\w-]+)[ \\t]*:[ \\t]*([^;{}\\n]+?)[ \\t]*(!default)?[ \\t]*;");

    public static List<SourceVariable> of(Theme theme, String file) {
        List<SourceVariable> found = new ArrayList<>();
        if (file.isEmpty() || !theme.files().has(file)) {
            return found;
        }
        SourceText text = SourceText.stylesheet(file, theme.files().read(file));
        Matcher m = VARIABLE.matcher(text.text());
        while (m.find()) {
            found.add(new SourceVariable(file, text.line(m.start(1)), m.group(1), m.group(2), m.start(2)));
        }
        return found;
    }

    /** True if the variable holds this colour. */
    public boolean holds(String colorKey) {
        return Color.parse(value).map(ColorKey::of).filter(colorKey::equals).isPresent();
    }
}
