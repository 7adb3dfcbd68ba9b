package org.calmpalette.core.setting;

import java.util.HashMap;
import java.util.Map;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/** On which line each part of a JSON file starts, by its place, written as {@code settings[2].allowed.units}. */
public final class JsonLines {
    private final Map<String, Integer> lines = new HashMap<>();

    /** @param json that has been read without a fault */
    public JsonLines(byte[] json) {
        try (JsonParser parser = JsonMapper.shared().createParser(json)) {
            for (JsonToken t = parser.nextToken(); t != null; t = parser.nextToken()) {
                String pointer = parser.streamReadContext().pathAsPointer().toString();
                StringBuilder at = new StringBuilder();
                for (String step :
                        pointer.isEmpty() ? new String[0] : pointer.substring(1).split("/", -1)) {
                    String name = step.replace("~1", "/").replace("~0", "~");
                    at.append(name.matches("\\d+") ? "[" + name + "]" : at.length() == 0 ? name : "." + name);
                }
                lines.putIfAbsent(at.toString(), parser.currentTokenLocation().getLineNr());
            }
        }
    }

    /** The line of a place, or of the nearest place around it that is in the file. */
    public int line(String at) {
        String place = at;
        while (!place.isEmpty() && !lines.containsKey(place)) {
            place = place.substring(0, Math.max(0, Math.max(place.lastIndexOf('.'), place.lastIndexOf('['))));
        }
        return lines.getOrDefault(place, 1);
    }
}
