package org.calmpalette.bench;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** The published sheets that are measured with, from their WebJars. */
final class Sheets {
    static final String BOOTSTRAP = "bootstrap/5.3.8/css/bootstrap.css";
    static final String BULMA = "bulma/1.0.4/css/bulma.css";

    private Sheets() {}

    static byte[] get(String name) throws IOException {
        try (InputStream in = Sheets.class.getResourceAsStream("/META-INF/resources/webjars/" + name)) {
            return in.readAllBytes();
        }
    }

    /** Writes the sheets down for the script that measures another parser on the same bytes. */
    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createDirectories(Path.of(arguments[0]));
        Files.write(folder.resolve("bootstrap.css"), get(BOOTSTRAP));
        Files.write(folder.resolve("bulma.css"), get(BULMA));
    }
}
