package org.calmpalette.app.web;

import java.util.List;
import org.calmpalette.core.usage.Painted;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Writes down for the frames what to outline. */
@Component("marks")
public class Marks {
    /** More outlines than this say nothing to anybody. */
    private static final int MOST = 120;

    public String of(List<Painted> painted) {
        return JsonMapper.shared()
                .writeValueAsString(painted.stream().distinct().limit(MOST).toList());
    }
}
