package org.calmpalette.core.setting;

import java.util.List;
import java.util.Optional;

/** The pictures and videos that a value may name. */
public interface Media {
    Media NONE = new Media() {
        @Override
        public Optional<MediaFacts> facts(String path) {
            return Optional.empty();
        }

        @Override
        public List<String> paths() {
            return List.of();
        }
    };

    Optional<MediaFacts> facts(String path);

    /** Of all pictures and videos. */
    List<String> paths();

    /** Whether it is known which files there are beside them. */
    default boolean knowsFiles() {
        return false;
    }

    /** Whether there is a file of any kind; only where {@link #knowsFiles}. */
    default boolean hasFile(String path) {
        return false;
    }
}
