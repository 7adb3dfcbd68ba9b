package org.calmpalette.core.picture;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.util.Arrays;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;

/** A change of a picture's pixels. The same picture gives the same one each time. */
public sealed interface PictureEdit {
    /** @param image upright */
    BufferedImage of(BufferedImage image);

    /** In words within a sentence. */
    String inWords();

    /** Other colours; what lets through lets through as much as before. */
    record Recolored(Tint tint) implements PictureEdit {
        /** Photographs have many pixels of few colours, so what was worked out is kept: a power of two. */
        private static final int KNOWN = 1 << 16;

        @Override
        public BufferedImage of(BufferedImage image) {
            int w = image.getWidth();
            int h = image.getHeight();
            boolean alpha = image.getColorModel().hasAlpha();
            BufferedImage out =
                    new BufferedImage(w, h, alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
            int[] keys = new int[KNOWN];
            int[] values = new int[KNOWN];
            Arrays.fill(keys, -1);
            int[] row = new int[w];
            for (int y = 0; y < h; y++) {
                Budget.step();
                image.getRGB(0, y, w, 1, row, 0, w);
                for (int x = 0; x < w; x++) {
                    int rgb = row[x] & 0xffffff;
                    int slot = (rgb * 0x9E3779B1) >>> 16;
                    if (keys[slot] != rgb) {
                        keys[slot] = rgb;
                        values[slot] = changed(rgb);
                    }
                    row[x] = row[x] & 0xff000000 | values[slot];
                }
                out.setRGB(0, y, w, 1, row, 0, w);
            }
            return out;
        }

        private int changed(int rgb) {
            int[] b = tint.of(Color.rgb((rgb >> 16 & 255) / 255.0, (rgb >> 8 & 255) / 255.0, (rgb & 255) / 255.0))
                    .bytes();
            return b[0] << 16 | b[1] << 8 | b[2];
        }

        @Override
        public String inWords() {
            return tint.inWords();
        }
    }

    /**
     * Cut and scaled to a size, around what must stay in sight.
     *
     * @param width of the slot, 1 to 10000 px
     * @param height of the slot, 1 to 10000 px
     * @param x where the middle of what must stay is, 0 to 1 of the width
     * @param y 0 to 1 of the height
     */
    record Fitted(int width, int height, double x, double y) implements PictureEdit {
        private static final int MOST = 10_000;

        public Fitted {
            if (width < 1 || height < 1 || width > MOST || height > MOST) {
                throw new BadInputException(
                        "A slot of " + width + " by " + height + " pixels is none.",
                        "Write 1 to " + MOST + " for both.");
            }
        }

        /** What is cut out of a picture: left, top, width and height in its pixels. */
        public double[] cut(int pictureWidth, int pictureHeight) {
            double w = Math.min(pictureWidth, pictureHeight * (double) width / height);
            double h = w * height / width;
            double left = Math.max(0, Math.min(pictureWidth - w, x * pictureWidth - w / 2));
            double top = Math.max(0, Math.min(pictureHeight - h, y * pictureHeight - h / 2));
            return new double[] {left, top, w, h};
        }

        @Override
        public BufferedImage of(BufferedImage image) {
            double[] c = cut(image.getWidth(), image.getHeight());
            if (c[2] + 0.5 < width) {
                throw new BadInputException(
                        "It has " + image.getWidth() + " by " + image.getHeight() + " pixels, and the slot of " + width
                                + " by " + height + " needs at least "
                                + (int) Math.ceil(
                                        Math.max(width, height * (double) image.getWidth() / image.getHeight()))
                                + " in width: larger than it is it would look soft.",
                        "Bring a larger picture, or write a smaller slot of the same shape, such as "
                                + (int) Math.floor(c[2]) + " by " + (int) Math.floor(c[3]) + ".");
            }
            int left = (int) Math.round(c[0]);
            int top = (int) Math.round(c[1]);
            int w = Math.max(1, Math.min(image.getWidth() - left, (int) Math.round(c[2])));
            int h = Math.max(1, Math.min(image.getHeight() - top, (int) Math.round(c[3])));
            return Lighter.scaled(image.getSubimage(left, top, w, h), width, height);
        }

        @Override
        public String inWords() {
            return "cut and scaled to " + width + " by " + height + " px";
        }
    }

    /** Drawn at another size, without a step of more than half. */
    static BufferedImage drawn(BufferedImage image, int width, int height, Object how) {
        BufferedImage out = new BufferedImage(
                width,
                height,
                image.getColorModel().hasAlpha() ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, how);
        g.drawImage(image, 0, 0, width, height, null);
        g.dispose();
        return out;
    }
}
