package org.calmpalette.app.themes;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.setting.Value;
import org.junit.jupiter.api.Test;

/** Of a theme with many pages and settings a part is measured with other values, the same part each time. */
class BoxesTest {
    @Test
    void wholeVariationsAreMeasuredUpToANumberOfPages() {
        Map<Variation, Map<String, String>> varied = new LinkedHashMap<>();
        for (String key : new String[] {"a", "b", "c", "d"}) {
            int pages = key.equals("b") ? 9 : key.equals("d") ? 0 : 3;
            Map<String, String> layouts = new LinkedHashMap<>();
            for (int i = 0; i < pages; i++) {
                layouts.put(i + ".html", key + i);
            }
            varied.put(new Variation(key, Value.of("x")), layouts);
        }
        assertThat(Boxes.first(varied, 20)).isEqualTo(varied);
        assertThat(Boxes.first(varied, 8).keySet()).extracting(Variation::key).containsExactly("a", "c", "d");
        assertThat(Boxes.first(varied, 3).keySet()).extracting(Variation::key).containsExactly("a", "d");
    }
}
