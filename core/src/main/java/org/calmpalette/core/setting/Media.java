package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;

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

    /** A single picture or video. */
    static Media one(String path, MediaFacts facts) {
        return new Media() {
            @Override
            public Optional<MediaFacts> facts(String asked) {
                return asked.equals(path) ? Optional.of(facts) : Optional.empty();
            }

            @Override
            public List<String> paths() {
                return List.of(path);
            }
        };
    }

    Optional<MediaFacts> facts(String path);

    /** Of all pictures and videos. */
    List<String> paths();

    /** Narrower copies of a picture by their width in pixels, the narrowest first. */
    default SortedMap<Integer, String> copies(String path) {
        return Collections.emptySortedMap();
    }

    /** Whether it is known which files there are beside them. */
    default boolean knowsFiles() {
        return false;
    }

    /** Whether there is a file of any kind; only where {@link #knowsFiles}. */
    default boolean hasFile(String path) {
        return false;
    }
}
