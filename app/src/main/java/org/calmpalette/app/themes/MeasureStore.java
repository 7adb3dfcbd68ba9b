package org.calmpalette.app.themes;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Keeps what browsers measured of pages. */
@Component
class MeasureStore {
    /** Layouts of one theme that are kept, the newest; the others are measured again when they come back. */
    private static final int MOST = 400;

    private final PageMeasuresRepository rows;
    private final TransactionTemplate transaction;

    MeasureStore(PageMeasuresRepository rows, TransactionTemplate transaction) {
        this.rows = rows;
        this.transaction = transaction;
    }

    /** By path of the page; pages that were not measured, or lie otherwise now, are missing. */
    Map<String, Measures> of(long themeId, ThemeCache.Read read) {
        Map<String, Measures> known = new LinkedHashMap<>(read.measures());
        Map<String, String> wanted = new LinkedHashMap<>();
        for (Page page : read.theme().pages()) {
            if (!known.containsKey(page.source().file())) {
                wanted.put(read.layoutKeys().of(page), page.source().file());
            }
        }
        if (!wanted.isEmpty()) {
            for (PageMeasures row : rows.findByThemeIdAndLayoutKeyIn(themeId, wanted.keySet())) {
                String page = wanted.get(row.layoutKey());
                known.put(page, read.keep(page, Measures.read("the measures of " + page, unpacked(row.packed()))));
            }
        }
        return known;
    }

    /** Which of some layouts were measured. */
    Set<String> known(long themeId, Collection<String> layouts) {
        return layouts.isEmpty() ? Set.of() : rows.known(themeId, layouts);
    }

    /** What was measured of layouts, by path of the page. @param wanted layouts by path */
    Map<String, Measures> read(long themeId, Map<String, String> wanted) {
        Map<String, Measures> all = new LinkedHashMap<>();
        Map<String, byte[]> byKey = new LinkedHashMap<>();
        rows.findByThemeIdAndLayoutKeyIn(themeId, wanted.values()).forEach(r -> byKey.put(r.layoutKey(), r.packed()));
        wanted.forEach((page, key) -> {
            if (byKey.containsKey(key)) {
                all.put(page, Measures.read("the measures of " + page, unpacked(byKey.get(key))));
            }
        });
        return all;
    }

    /** Keeps what was measured; of two who measured the same the first counts. */
    void keep(long themeId, String layoutKey, Measures measures) {
        try {
            transaction.executeWithoutResult(s -> {
                rows.saveAndFlush(new PageMeasures(themeId, layoutKey, packed(measures.write())));
                List<Long> newest = rows.ids(themeId, Limit.of(MOST));
                if (newest.size() == MOST) {
                    rows.deleteOlder(themeId, newest.get(MOST - 1));
                }
            });
        } catch (DataIntegrityViolationException there) {
            // Measured in two windows at once.
        }
    }

    private static byte[] packed(byte[] bytes) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
            gzip.write(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] unpacked(byte[] packed) {
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
            return in.readNBytes(Measures.LARGEST);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
