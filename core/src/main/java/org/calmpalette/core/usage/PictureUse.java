package org.calmpalette.core.usage;

/**
 * An address of a picture that a stylesheet or page names.
 *
 * @param url as written
 * @param file that names it
 * @param path of the picture in the theme; empty if it points elsewhere
 * @param width in its own pixels, 0 if not known
 * @param bytes 0 if it is not there
 * @param uses how often this file names it
 */
public record PictureUse(
        String url, String file, int line, String path, boolean exists, int width, int height, long bytes, int uses) {}
