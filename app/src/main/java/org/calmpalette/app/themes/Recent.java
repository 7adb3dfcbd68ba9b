package org.calmpalette.app.themes;

import java.lang.ref.SoftReference;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * What was used last, up to a weight in all; the garbage collector may take any of it. What was asked for just now is always
 * kept: a cache that weighs how often something is asked for may refuse a newcomer again and again, and then a theme would be
 * read anew, and surveyed anew, at every look.
 */
final class Recent<V> {
    private record Kept<V>(SoftReference<V> value, long weight) {}

    private final long most;
    private final Map<String, Kept<V>> kept = new LinkedHashMap<>(16, 0.75f, true);
    private long weight;

    Recent(long most) {
        this.most = most;
    }

    /** Null if it is not here any more. */
    synchronized V get(String key) {
        Kept<V> found = kept.get(key);
        V value = found == null ? null : found.value().get();
        if (found != null && value == null) {
            remove(key);
        }
        return value;
    }

    synchronized void put(String key, V value, long its) {
        remove(key);
        kept.put(key, new Kept<>(new SoftReference<>(value), its));
        weight += its;
        // The oldest go first; the newest stays, whatever it weighs.
        for (Iterator<Map.Entry<String, Kept<V>>> oldest = kept.entrySet().iterator();
                weight > most && kept.size() > 1; ) {
            weight -= oldest.next().getValue().weight();
            oldest.remove();
        }
    }

    synchronized void remove(String key) {
        Kept<V> gone = kept.remove(key);
        weight -= gone == null ? 0 : gone.weight();
    }
}
