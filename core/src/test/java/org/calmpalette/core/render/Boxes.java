package org.calmpalette.core.render;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;

/** A page of one stylesheet with boxes that a test gives: {@code html 1, head 2, link 3, body 4}, then what the body holds. */
final class Boxes {
    private final List<String> boxes = new ArrayList<>();
    private final List<String> lines = new ArrayList<>();
    private final Theme theme;

    /** @param more files, path and content by turns */
    Boxes(String css, String body, String... more) {
        List<String> files = new ArrayList<>(List.of(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body>" + body + "</body></html>",
                "a.css",
                css));
        files.addAll(List.of(more));
        theme = Theme.read(Themes.files(files.toArray(String[]::new)), "T");
        canvas();
    }

    /** The same with a picture beside it. */
    Boxes(String css, String body, String path, byte[] picture) {
        Theme without = new Boxes(css, body).theme;
        theme = Theme.read(ThemeFiles.overlaid(without.files(), new TreeMap<>(Map.of(path, picture))), "T");
        canvas();
    }

    private void canvas() {
        box(1, "[320,0,0,320,1000],[2560,0,0,2560,1000]");
        box(4, "[320,0,0,320,1000],[2560,0,0,2560,1000]");
    }

    /** @param points as the file has them: width, x, y, width, height … */
    Boxes box(int element, String points) {
        boxes.add("\"" + element + "\":[" + points + "]");
        return this;
    }

    Boxes line(int element, String points) {
        lines.add("\"" + element + "\":[" + points + "]");
        return this;
    }

    Scenes scenes() {
        String file =
                "{\"format\":\"calm-measures/1\",\"page\":\"index.html\",\"windowHeight\":800,\"from\":320,\"to\":2560,\"unsure\":[],\"height\":[[320,1000]],\"boxes\":{"
                        + String.join(",", boxes) + "},\"lines\":{" + String.join(",", lines) + "}}";
        return new Scenes(
                new Rendered(theme),
                theme.pages().get(0),
                Measures.read("m.json", file.getBytes(StandardCharsets.UTF_8)));
    }

    Gallery gallery() {
        return new Gallery(theme);
    }
}
