package org.calmpalette.core;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Cases that core and the scripts in the browser are both held to: {@code src/test/resources/cases/NAME.json}, one a line. With
 * {@code -Dcalm.record=true} core writes what it says.
 */
public final class SharedCases {
    private SharedCases() {}

    private static Path file(String name) {
        return Path.of("../core/src/test/resources/cases/" + name + ".json");
    }

    public static List<JsonNode> read(String name) {
        try {
            return List.copyOf(
                    JsonMapper.shared().readTree(Files.readString(file(name))).values());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @return whether this run writes instead of comparing */
    public static boolean recorded(String name, List<?> cases) {
        if (!Boolean.getBoolean("calm.record")) {
            return false;
        }
        try {
            Files.writeString(
                    file(name),
                    cases.stream()
                            .map(c -> JsonMapper.shared().writeValueAsString(c))
                            .collect(Collectors.joining(",\n", "[\n", "\n]\n")));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return true;
    }
}
