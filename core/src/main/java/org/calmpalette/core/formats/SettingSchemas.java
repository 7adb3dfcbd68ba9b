package org.calmpalette.core.formats;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** JSON Schemas (2020-12): of {@code palette.json}, and of the values that an owner may choose in one theme. */
public final class SettingSchemas {
    private static final String DIALECT = "https://json-schema.org/draft/2020-12/schema";
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private SettingSchemas() {}

    /** The schema of {@code palette.json}, as it stands in {@code docs/formats}. */
    public static byte[] palette() {
        try (InputStream in = SettingSchemas.class.getResourceAsStream("palette.schema.json")) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new IllegalStateException("the schema of palette.json is part of the program", e);
        }
    }

    /** The schema of an owner's values for a theme: one object, keys of settings to values. */
    public static byte[] values(Theme theme) {
        Effective defaults = ThemeBuild.defaults(theme);
        Map<String, Value> properties = new LinkedHashMap<>();
        for (Setting s : theme.palette().settings()) {
            Map<String, Value> said = new LinkedHashMap<>();
            said.put("title", Value.of(s.label()));
            if (!s.help().isEmpty()) {
                said.put("description", Value.of(s.help()));
            }
            if (s.perBand()) {
                Map<String, Value> bands = new LinkedHashMap<>();
                for (Band b : theme.palette().bands().list()) {
                    bands.put(b.key(), Value.parts("$ref", "#/$defs/" + s.key()));
                }
                Value inBands = Value.parts(
                        "type",
                        "object",
                        "properties",
                        Value.parts(
                                "everywhere",
                                Value.parts("$ref", "#/$defs/" + s.key()),
                                "bands",
                                Value.parts(
                                        "type",
                                        "object",
                                        "properties",
                                        new Value.Parts(bands),
                                        "additionalProperties",
                                        false)),
                        "required",
                        Value.of(List.of("bands")),
                        "additionalProperties",
                        false);
                said.put("anyOf", new Value.Many(List.of(Value.parts("$ref", "#/$defs/" + s.key()), inBands)));
            } else {
                said.put("$ref", Value.of("#/$defs/" + s.key()));
            }
            properties.put(s.key(), new Value.Parts(said));
        }
        Map<String, Value> definitions = new LinkedHashMap<>();
        theme.palette()
                .settings()
                .forEach(s -> definitions.put(
                        s.key(),
                        s.kind().schema(defaults.around(theme.palette().bands().widest()))));
        Value.Parts root = Value.parts(
                "$schema",
                DIALECT,
                "title",
                "The values of " + theme.palette().name(),
                "type",
                "object",
                "properties",
                new Value.Parts(properties),
                "additionalProperties",
                false,
                "$defs",
                new Value.Parts(definitions));
        return (MAPPER.writeValueAsString(root.json()) + "\n").getBytes(StandardCharsets.UTF_8);
    }
}
