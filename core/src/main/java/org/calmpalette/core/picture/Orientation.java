package org.calmpalette.core.picture;

import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.metadata.exif.ExifIFD0Directory;
import java.awt.Graphics2D;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;

/**
 * Which way up a photograph is shown: cameras keep the pixels as the sensor lay and say in the file how to turn them.
 *
 * @param value 1 to 8 as Exif 2.3 has it, tag 274; 1 is as the pixels lie
 */
public record Orientation(int value) {
    public static final Orientation UPRIGHT = new Orientation(1);

    /** Reads the orientation; upright where a file says none, or nothing that can be read. */
    public static Orientation of(byte[] picture) {
        boolean jpeg = picture.length > 3 && (picture[0] & 0xFF) == 0xFF && (picture[1] & 0xFF) == 0xD8;
        if (!jpeg) {
            return UPRIGHT;
        }
        try {
            ExifIFD0Directory exif = ImageMetadataReader.readMetadata(new ByteArrayInputStream(picture))
                    .getFirstDirectoryOfType(ExifIFD0Directory.class);
            Integer value = exif == null ? null : exif.getInteger(ExifIFD0Directory.TAG_ORIENTATION);
            return value == null || value < 1 || value > 8 ? UPRIGHT : new Orientation(value);
        } catch (ImageProcessingException | IOException | RuntimeException broken) {
            // A file whose notes are broken is shown as its pixels lie, by browsers too.
            return UPRIGHT;
        }
    }

    /** Whether what is wide in the file is shown high. */
    public boolean isTurned() {
        return value >= 5;
    }

    /** The picture with its pixels as they are shown. */
    public BufferedImage upright(BufferedImage picture) {
        if (value == 1) {
            return picture;
        }
        int w = picture.getWidth();
        int h = picture.getHeight();
        // Where a pixel of column x and row y goes: (m00 x + m01 y + m02, m10 x + m11 y + m12).
        AffineTransform turn =
                switch (value) {
                    case 2 -> new AffineTransform(-1, 0, 0, 1, w, 0);
                    case 3 -> new AffineTransform(-1, 0, 0, -1, w, h);
                    case 4 -> new AffineTransform(1, 0, 0, -1, 0, h);
                    case 5 -> new AffineTransform(0, 1, 1, 0, 0, 0);
                    case 6 -> new AffineTransform(0, 1, -1, 0, h, 0);
                    case 7 -> new AffineTransform(0, -1, -1, 0, h, w);
                    default -> new AffineTransform(0, -1, 1, 0, 0, w);
                };
        int type = picture.getColorModel().hasAlpha() ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB;
        BufferedImage out = isTurned() ? new BufferedImage(h, w, type) : new BufferedImage(w, h, type);
        Graphics2D g = out.createGraphics();
        g.drawImage(picture, turn, null);
        g.dispose();
        return out;
    }
}
