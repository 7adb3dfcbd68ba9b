package org.calmpalette.core.chromium;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.GZIPInputStream;

/** Published stylesheets of general-purpose libraries, from WebJars and npm packages of the versions named here. */
public final class OutsideSheets {
    private static final Map<String, String> RESOURCES = new LinkedHashMap<>();

    static {
        String jars = "/META-INF/resources/webjars/";
        RESOURCES.put("bootstrap 5.3.8", jars + "bootstrap/5.3.8/css/bootstrap.css");
        RESOURCES.put("bootstrap 5.3.8, minified", jars + "bootstrap/5.3.8/css/bootstrap.min.css");
        RESOURCES.put("bulma 1.0.4", jars + "bulma/1.0.4/css/bulma.css");
        RESOURCES.put("purecss 2.1.0", jars + "purecss/2.1.0/build/pure.css");
        RESOURCES.put("normalize.css 8.0.1", jars + "normalize.css/8.0.1/normalize.css");
        RESOURCES.put("materialize-css 1.0.0", jars + "materialize-css/1.0.0/dist/css/materialize.css");
        RESOURCES.put("picocss 2.1.1", jars + "picocss__pico/2.1.1/css/pico.blue.css");
        RESOURCES.put("foundation-sites 6.9.0", "/outside/foundation-6.9.0.css.gz");
        RESOURCES.put("milligram 1.4.1", "/outside/milligram-1.4.1.css.gz");
        RESOURCES.put("tachyons 4.12.0", "/outside/tachyons-4.12.0.css.gz");
    }

    private OutsideSheets() {}

    public static Map<String, byte[]> all() {
        Map<String, byte[]> sheets = new LinkedHashMap<>();
        RESOURCES.keySet().forEach(name -> sheets.put(name, get(name)));
        return sheets;
    }

    public static byte[] get(String name) {
        return resource(RESOURCES.get(name));
    }

    public static byte[] resource(String path) {
        try (InputStream in = OutsideSheets.class.getResourceAsStream(path)) {
            return path.endsWith(".gz") ? new GZIPInputStream(in).readAllBytes() : in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
