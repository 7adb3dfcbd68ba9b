package org.calmpalette.core.picture;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint.Veil;

/**
 * What a picture of pixels looks like, to be asked for the colour at a place. Upright, as it is shown. A large picture is read in
 * coarser pixels, and for asking about areas there are ever coarser copies, each half as wide, made by averaging as browsers do
 * when they draw a picture smaller than it is: in sRGB, with premultiplied alpha.
 */
public final class Pixels {
    /** Pixels kept at most; twice as many in each direction are more than any window of 2560 px shows. */
    private static final int MOST = 4_000_000;
    /** Pixels that a picture may have to be looked at. */
    public static final long LARGEST = 60_000_000;
    /** WebP is decoded as a whole before it is made coarser, which takes four bytes a pixel and more. */
    static final long LARGEST_WEBP = 24_000_000;
    /** From so many pixels on pictures are decoded one at a time: several at once would not fit into memory. */
    private static final long LARGE = 6_000_000;

    /** One copy; colours as four floats, red, green, blue premultiplied and alpha, each 0 to 1. */
    private record Copy(int width, int height, float[] data) {}

    private final int width;
    private final int height;
    private final boolean stretches;
    private final boolean whole;
    private final List<Copy> copies = new ArrayList<>();

    private Pixels(BufferedImage image, int width, int height) {
        this(image, width, height, true, image.getWidth() == width && image.getHeight() == height);
    }

    private Pixels(BufferedImage image, int width, int height, boolean stretches, boolean whole) {
        this.width = width;
        this.height = height;
        this.stretches = stretches;
        this.whole = whole;
        int w = image.getWidth();
        int h = image.getHeight();
        float[] data = new float[w * h * 4];
        int[] row = new int[w];
        for (int y = 0; y < h; y++) {
            image.getRGB(0, y, w, 1, row, 0, w);
            for (int x = 0; x < w; x++) {
                int p = row[x];
                float a = (p >>> 24) / 255f;
                int at = (y * w + x) * 4;
                data[at] = (p >> 16 & 255) / 255f * a;
                data[at + 1] = (p >> 8 & 255) / 255f * a;
                data[at + 2] = (p & 255) / 255f * a;
                data[at + 3] = a;
            }
        }
        copies.add(new Copy(w, h, data));
        while (copies.get(copies.size() - 1).width() > 1
                || copies.get(copies.size() - 1).height() > 1) {
            copies.add(half(copies.get(copies.size() - 1)));
        }
    }

    /** Empty if the bytes are no picture that is decoded here (PNG, JPEG, GIF, BMP, WebP, and SVG of shapes alone), are broken, or have more than {@link #LARGEST} pixels. */
    public static Optional<Pixels> read(byte[] bytes) {
        if (SvgDrawing.isSvg(bytes)) {
            return SvgDrawing.of(bytes).map(d -> new Pixels(d.image(), d.width(), d.height(), d.stretches(), false));
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            ImageReader reader = Engine.reader(in).orElse(null);
            if (reader == null) {
                return Optional.empty();
            }
            try {
                reader.setInput(in, true, true);
                int w = reader.getWidth(0);
                int h = reader.getHeight(0);
                boolean whole = reader.getFormatName().equalsIgnoreCase("webp");
                if (w < 1 || h < 1 || (long) w * h > (whole ? LARGEST_WEBP : LARGEST)) {
                    return Optional.empty();
                }
                ImageReadParam param = reader.getDefaultReadParam();
                int every = (int) Math.max(1, Math.ceil(Math.sqrt((double) w * h / MOST)));
                param.setSourceSubsampling(every, every, 0, 0);
                Orientation orientation = Orientation.of(bytes);
                BufferedImage upright = orientation.upright(read(reader, param, (long) w * h));
                return Optional.of(orientation.isTurned() ? new Pixels(upright, h, w) : new Pixels(upright, w, h));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException broken) {
            // ImageIO's readers throw all sorts at broken files.
            return Optional.empty();
        }
    }

    private static BufferedImage read(ImageReader reader, ImageReadParam param, long pixels) throws IOException {
        if (pixels < LARGE) {
            return reader.read(0, param);
        }
        synchronized (Pixels.class) {
            return reader.read(0, param);
        }
    }

    /** Of a picture that is in memory. */
    public static Pixels of(BufferedImage image) {
        return new Pixels(image, image.getWidth(), image.getHeight());
    }

    private static Copy half(Copy from) {
        int w = Math.max(1, from.width() / 2);
        int h = Math.max(1, from.height() / 2);
        float[] data = new float[w * h * 4];
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int x1 = Math.min(from.width() - 1, 2 * x + 1);
                int y1 = Math.min(from.height() - 1, 2 * y + 1);
                int x0 = Math.min(2 * x, from.width() - 1);
                int y0 = Math.min(2 * y, from.height() - 1);
                for (int c = 0; c < 4; c++) {
                    data[(y * w + x) * 4 + c] = (from.data()[(y0 * from.width() + x0) * 4 + c]
                                    + from.data()[(y0 * from.width() + x1) * 4 + c]
                                    + from.data()[(y1 * from.width() + x0) * 4 + c]
                                    + from.data()[(y1 * from.width() + x1) * 4 + c])
                            / 4;
                }
            }
        }
        return new Copy(w, h, data);
    }

    /**
     * Whether it looks so at that size: pixels are stretched to any shape, and an SVG keeps its own unless it says otherwise, so that
     * room is left at its sides (SVG 2, section 8.6).
     */
    public boolean fills(double drawnWidth, double drawnHeight) {
        return stretches || Math.abs(drawnWidth / drawnHeight / ((double) width / height) - 1) < 0.01;
    }

    /** In its own pixels, as it is shown. */
    public int width() {
        return width;
    }

    /** In its own pixels, as it is shown. */
    public int height() {
        return height;
    }

    /**
     * The colour at a point, between the pixels around it.
     *
     * @param x 0 at the left edge, {@link #width} at the right one; beyond an edge the pixel at the edge counts
     * @param scale how much larger than itself the picture is drawn, in the direction in which it is drawn larger. Below 1 the smallest
     *     copy counts that is not smaller than what is drawn, as Chromium does it (its answers are recorded beside the tests)
     * @param into red, green and blue, premultiplied, and alpha, each 0 to 1
     */
    public void at(double x, double y, double scale, double[] into) {
        atLevel(x, y, level(scale), into);
    }

    /** Which of the halved copies is looked at where the picture is drawn at a scale, for {@link #atLevel}; 0 is the picture itself. */
    public int level(double scale) {
        double smaller = scale >= 1 ? 0 : Math.log(1 / scale * copies.get(0).width() / width) / Math.log(2);
        return (int) Math.max(0, Math.min(copies.size() - 1, Math.floor(smaller + 1e-9)));
    }

    /** As {@link #at}, for whoever asks for many points at one scale. */
    public void atLevel(double x, double y, int level, double[] into) {
        sample(copies.get(level), x, y, into);
    }

    private void sample(Copy copy, double x, double y, double[] into) {
        double u = x / width * copy.width() - 0.5;
        double v = y / height * copy.height() - 0.5;
        int x0 = (int) Math.floor(u);
        int y0 = (int) Math.floor(v);
        double fx = u - x0;
        double fy = v - y0;
        int left = clamp(x0, copy.width());
        int right = clamp(x0 + 1, copy.width());
        int top = clamp(y0, copy.height()) * copy.width();
        int bottom = clamp(y0 + 1, copy.height()) * copy.width();
        float[] d = copy.data();
        for (int c = 0; c < 4; c++) {
            double upper = d[(top + left) * 4 + c] * (1 - fx) + d[(top + right) * 4 + c] * fx;
            double lower = d[(bottom + left) * 4 + c] * (1 - fx) + d[(bottom + right) * 4 + c] * fx;
            into[c] = upper * (1 - fy) + lower * fy;
        }
    }

    private static int clamp(int at, int size) {
        return Math.max(0, Math.min(size - 1, at));
    }

    /** The colour that all pixels have on average, in sRGB, opaque; of a picture that shows nothing, white. */
    public Color middle() {
        float[] one = copies.get(copies.size() - 1).data();
        return one[3] == 0 ? Color.WHITE : Color.rgb(one[0] / one[3], one[1] / one[3], one[2] / one[3]);
    }

    /**
     * Between what the colours and the alpha of its pixels lie, and so those of the picture at any size that is drawn by averaging; what is
     * wholly clear has no colour. Empty where not every pixel was read, as of a large picture, or there are none to read, as in SVG.
     */
    public Optional<Veil> range() {
        return blocks().map(b -> {
            BitSet all = new BitSet();
            all.set(0, b.across * b.down);
            return b.range(all);
        });
    }

    /** The same by parts of the picture; empty where {@link #range} is. */
    public Optional<Blocks> blocks() {
        return whole ? Optional.of(new Blocks(copies.get(0))) : Optional.empty();
    }

    /** Squares of pixels, each with the least and the greatest of its colours and alphas. */
    public static final class Blocks {
        private static final int SIDE = 16;

        private final int across;
        private final int down;
        /** By block: least red, green, blue and alpha, then the greatest of each. */
        private final float[] ends;

        private Blocks(Copy copy) {
            across = (copy.width() + SIDE - 1) / SIDE;
            down = (copy.height() + SIDE - 1) / SIDE;
            ends = new float[across * down * 8];
            for (int i = 0; i < ends.length; i++) {
                ends[i] = i % 8 < 4 ? 1 : 0;
            }
            float[] data = copy.data();
            for (int y = 0; y < copy.height(); y++) {
                for (int x = 0; x < copy.width(); x++) {
                    int at = (y * copy.width() + x) * 4;
                    int into = (y / SIDE * across + x / SIDE) * 8;
                    float alpha = data[at + 3];
                    include(into + 3, alpha);
                    for (int c = 0; alpha > 0 && c < 3; c++) {
                        include(into + c, Math.min(1, data[at + c] / alpha));
                    }
                }
            }
        }

        private void include(int at, float value) {
            ends[at] = Math.min(ends[at], value);
            ends[at + 4] = Math.max(ends[at + 4], value);
        }

        /**
         * Marks the blocks that a rectangle of the picture touches, in its pixels, and those that lie a pixel or a twentieth of its side
         * beside it: what is drawn smaller takes in what is around.
         */
        public void touch(double left, double top, double right, double bottom, BitSet touched) {
            double roomX = 2 + (right - left) / 20;
            double roomY = 2 + (bottom - top) / 20;
            for (int y = block(top - roomY, down); y <= block(bottom + roomY, down); y++) {
                touched.set(y * across + block(left - roomX, across), y * across + block(right + roomX, across) + 1);
            }
        }

        private static int block(double at, int count) {
            return Math.max(0, Math.min(count - 1, (int) Math.floor(at / SIDE)));
        }

        /** Of the blocks that are marked. */
        public Veil range(BitSet touched) {
            double[] low = {1, 1, 1, 1};
            double[] high = {0, 0, 0, 0};
            touched.stream().forEach(block -> {
                for (int c = 0; c < 4; c++) {
                    low[c] = Math.min(low[c], ends[block * 8 + c]);
                    high[c] = Math.max(high[c], ends[block * 8 + 4 + c]);
                }
            });
            return new Veil(
                    high[3] == 0
                            ? ColorRange.ANY
                            : new ColorRange(
                                    new double[] {low[0], low[1], low[2]}, new double[] {high[0], high[1], high[2]}),
                    low[3],
                    high[3]);
        }
    }

    /** Whether some pixel lets something through. */
    public boolean hasAlpha() {
        return copies.get(copies.size() - 1).data()[3] < 1 - 1e-6;
    }

    /** Bytes of memory that it takes, roughly. */
    public long weight() {
        return copies.stream().mapToLong(c -> 4L * c.data().length).sum();
    }
}
