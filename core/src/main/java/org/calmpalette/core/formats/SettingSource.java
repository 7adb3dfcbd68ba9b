package org.calmpalette.core.formats;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/** Files that settings are read from, and written to, by the names of the files. */
public final class SettingSource {
    /** The files that are written, by name. */
    public static final List<String> WRITTEN =
            List.of("tokens.json", "settings.scss", "settings.less", "palette.schema.json", "values.schema.json");

    private SettingSource() {}

    /**
     * What a file offers.
     *
     * @param faults what cannot be read, each with its place
     */
    public record Read(List<Setting> settings, List<Place> places, List<String> faults) {
        public Optional<Place> place(String key) {
            return places.stream().filter(p -> p.key().equals(key)).findFirst();
        }

        public String placeLabel(String key) {
            return place(key).map(Place::label).orElse(key);
        }

        private Effective values() {
            return Effective.defaults(
                    new Palette(
                            "",
                            org.calmpalette.core.setting.Bands.USUAL,
                            places,
                            settings.stream()
                                    .map(s -> s.withBands(java.util.Map.of()).withShown(null))
                                    .toList(),
                            List.of(),
                            List.of()),
                    Media.NONE);
        }

        public Value value(Setting s) {
            Effective all = values();
            return all.value(all.palette().known(s.key()), all.palette().bands().widest());
        }

        public String words(Setting s) {
            return s.kind().words(value(s));
        }
    }

    /** Whether a file may hold settings, by its ending. */
    public static boolean isReadable(String path) {
        return List.of("scss", "less").contains(Paths.ending(path))
                || path.endsWith("tokens.json")
                || path.endsWith(".tokens");
    }

    /** @throws BadInputException if the file is of no such kind, or cannot be read at all */
    public static Read read(Theme theme, String name, byte[] bytes) {
        String ending = Paths.ending(name);
        if (ending.equals("scss") || ending.equals("less")) {
            PreprocessorVariables.Read read = PreprocessorVariables.read(
                    bytes, name, Place.EVERYWHERE.key(), theme.palette().bands());
            return new Read(read.settings(), read.places(), read.faults());
        }
        if (ending.equals("json") || ending.equals("tokens")) {
            DesignTokens.Read read =
                    DesignTokens.read(bytes, name, theme.palette().bands());
            return new Read(read.settings(), read.places(), read.faults());
        }
        throw new BadInputException(
                name + " is neither a file of design tokens nor of variables.",
                "Choose a .json, .tokens, .scss or .less file.");
    }

    /** One of {@link #WRITTEN}; empty if there is no such file. */
    public static Optional<byte[]> written(Theme theme, String name) {
        return switch (name) {
            case "tokens.json" -> Optional.of(DesignTokens.write(theme.palette()));
            case "settings.scss" ->
                Optional.of(PreprocessorVariables.write(theme.palette(), PreprocessorVariables.Language.SCSS));
            case "settings.less" ->
                Optional.of(PreprocessorVariables.write(theme.palette(), PreprocessorVariables.Language.LESS));
            case "palette.schema.json" -> Optional.of(SettingSchemas.palette());
            case "values.schema.json" -> Optional.of(SettingSchemas.values(theme));
            default -> Optional.empty();
        };
    }
}
