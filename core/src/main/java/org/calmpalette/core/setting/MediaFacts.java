package org.calmpalette.core.setting;

import java.util.Locale;
import org.calmpalette.core.picture.PictureSize;

/**
 * What a picture or video is, as far as limits speak of it.
 *
 * @param width in its own pixels; 0 if it is not known, as for videos
 * @param format by the ending of its name, in lower case, {@code jpg} for {@code jpeg}
 */
public record MediaFacts(int width, int height, long bytes, String format) {
    public static MediaFacts of(String path, byte[] contents) {
        PictureSize size = PictureSize.read(contents).orElse(new PictureSize(0, 0));
        return new MediaFacts(size.width(), size.height(), contents.length, format(path));
    }

    static String format(String path) {
        String ending = path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return ending.equals("jpeg") ? "jpg" : ending;
    }

    /** Width divided by height; 0 if the size is not known. */
    public double shape() {
        return height == 0 ? 0 : (double) width / height;
    }
}
