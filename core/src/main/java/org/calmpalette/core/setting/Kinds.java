package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/** All kinds by their names. */
public final class Kinds {
    private static final Map<String, Function<JsonEntry, Kind>> READERS = readers();

    private Kinds() {}

    private static Map<String, Function<JsonEntry, Kind>> readers() {
        Map<String, Function<JsonEntry, Kind>> all = new LinkedHashMap<>();
        all.put("color", ColorKind::read);
        all.put("background", BackgroundKind::read);
        all.put("gradient", GradientKind::read);
        all.put("picture", e -> PictureKind.read(e, PictureKind.FORMATS));
        all.put("video", VideoKind::read);
        all.put("length", LengthKind::read);
        all.put("number", e -> NumberKind.read(false, e));
        all.put("percentage", e -> NumberKind.read(true, e));
        all.put("choice", ChoiceKind::read);
        all.put("yes-no", YesNoKind::read);
        all.put("line", e -> TextKind.read(false, e));
        all.put("text", e -> TextKind.read(true, e));
        all.put("link", LinkKind::read);
        all.put("level", LevelKind::read);
        all.put("spacing", SpacingKind::read);
        all.put("border", BorderKind::read);
        all.put("shadow", ShadowKind::read);
        all.put("items", ItemsKind::read);
        return Collections.unmodifiableMap(all);
    }

    /** The names, as {@code palette.json} writes them. */
    public static List<String> names() {
        return List.copyOf(READERS.keySet());
    }

    /**
     * A kind with its limits.
     *
     * @param allowed as {@code palette.json} keeps it
     * @throws org.calmpalette.core.BadInputException if there is no such kind, or the limits cannot be met
     */
    public static Kind read(String name, Value.Parts allowed) {
        return read(name, new JsonEntry(allowed, "allowed"));
    }

    static Kind read(String name, JsonEntry allowed) {
        Function<JsonEntry, Kind> reader = READERS.get(name);
        if (reader == null) {
            throw new org.calmpalette.core.BadInputException(
                    "“" + name + "” is no kind of setting that is known.",
                    "Write one of " + String.join(", ", READERS.keySet()) + ".");
        }
        return reader.apply(allowed);
    }

    /** A kind without limits; a choice between two options, since there is none without. */
    public static Kind plain(String name) {
        return name.equals("choice") ? ChoiceKind.of(List.of("one", "two")) : read(name, Value.parts());
    }
}
