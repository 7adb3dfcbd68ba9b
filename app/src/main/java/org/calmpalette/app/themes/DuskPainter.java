package org.calmpalette.app.themes;

import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.LinearGradientPaint;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;

/**
 * Draws the pictures of the demo: a mere at dusk with ridges, water and a ferry, grainy and with a wide range of tones,
 * so that it behaves like a photograph. The same seed draws the same picture.
 */
final class DuskPainter {
    private static final long SEED = 20_771;
    private static final int WIDTH = 1600;
    private static final int HEIGHT = 900;
    private static final int WATER = 640;

    private final Random random = new Random(SEED);

    private DuskPainter() {}

    /** The drawn pictures of one of our themes, by path. */
    static Map<String, byte[]> pictures(String theme) throws IOException {
        Map<String, byte[]> pictures = new LinkedHashMap<>();
        if (theme.equals("towpath")) {
            // Compressed less than a page needs: one of the theme's everyday faults.
            pictures.put("img/river-dusk.jpg", jpeg(new DuskPainter().dusk(), 0.97f));
            pictures.put("img/header-strip.png", png(strip()));
        }
        return pictures;
    }

    private BufferedImage dusk() {
        BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setPaint(new LinearGradientPaint(0, 0, 0, WATER, new float[] {0, 0.55f, 0.8f, 1}, new Color[] {
            new Color(0x24344a), new Color(0x7d7a94), new Color(0xc79a86), new Color(0xf3bd86)
        }));
        g.fillRect(0, 0, WIDTH, WATER);
        glow(g, 1060, 520);
        ridge(g, 470, 120, 0x6d7790, 5);
        ridge(g, 540, 80, 0x4c5a72, 8);
        ridge(g, 610, 34, 0x2c3a4d, 22);
        water(g);
        ferry(g, 1365, 690);
        g.dispose();
        grain(image);
        return image;
    }

    private static void glow(Graphics2D g, double x, double y) {
        for (int r = 260; r > 44; r -= 4) {
            g.setColor(new Color(255, 222, 170, 3));
            g.fill(new Ellipse2D.Double(x - r, y - r, 2 * r, 2 * r));
        }
        g.setColor(new Color(0xffe9c6));
        g.fill(new Ellipse2D.Double(x - 44, y - 44, 88, 88));
    }

    /** One ridge: a line of midpoints that are moved up and down, filled to the water. */
    private void ridge(Graphics2D g, int base, int height, int color, int peaks) {
        double[] line = new double[257];
        for (int i = 0; i < line.length; i += 256 / 8) {
            line[i] = random.nextDouble() * height;
        }
        for (int step = 16; step >= 1; step /= 2) {
            for (int i = step; i < 256; i += 2 * step) {
                line[i] = (line[i - step] + line[Math.min(256, i + step)]) / 2
                        + (random.nextDouble() - 0.5) * height * step / 40;
            }
        }
        Path2D path = new Path2D.Double();
        path.moveTo(0, WATER + 6);
        for (int i = 0; i < line.length; i++) {
            double wave = Math.sin(i * Math.PI * peaks / 128 + base) * height / 3;
            path.lineTo(i * WIDTH / 256.0, base - line[i] - wave);
        }
        path.lineTo(WIDTH, WATER + 6);
        path.closePath();
        g.setPaint(new GradientPaint(0, base - height, new Color(color), 0, WATER, new Color(color).darker()));
        g.fill(path);
    }

    private void water(Graphics2D g) {
        g.setPaint(new GradientPaint(0, WATER, new Color(0xd79f74), 0, HEIGHT, new Color(0x2b3a4c)));
        g.fillRect(0, WATER, WIDTH, HEIGHT - WATER);
        for (int i = 0; i < 1400; i++) {
            double depth = Math.pow(random.nextDouble(), 1.4);
            double y = WATER + 3 + depth * (HEIGHT - WATER);
            double length = 8 + depth * 90 * random.nextDouble();
            boolean light = random.nextDouble() < 0.55;
            g.setColor(
                    light
                            ? new Color(255, 214, 166, 30 + random.nextInt(60))
                            : new Color(24, 34, 48, 30 + random.nextInt(50)));
            g.fill(new Rectangle2D.Double(random.nextDouble() * WIDTH, y, length, 1 + depth * 1.6));
        }
        for (int i = 0; i < 160; i++) {
            double y = WATER + 4 + random.nextDouble() * 180;
            double spread = 20 + (y - WATER) * 0.5;
            g.setColor(new Color(255, 236, 200, 60));
            g.fill(new Rectangle2D.Double(
                    1060 + (random.nextDouble() - 0.5) * spread * 2, y, 14 + random.nextDouble() * 30, 2));
        }
    }

    private static void ferry(Graphics2D g, int x, int y) {
        g.setColor(new Color(0x131c27));
        Path2D hull = new Path2D.Double();
        hull.moveTo(x - 78, y);
        hull.lineTo(x + 82, y);
        hull.lineTo(x + 62, y + 34);
        hull.lineTo(x - 58, y + 34);
        hull.closePath();
        g.fill(hull);
        g.fillRect(x - 42, y - 34, 92, 36);
        g.fillRect(x - 4, y - 96, 7, 64);
        g.fillRect(x + 22, y - 58, 14, 26);
        g.setColor(new Color(0xf7cf8e));
        for (int i = 0; i < 5; i++) {
            g.fillRect(x - 34 + i * 17, y - 25, 9, 11);
        }
        g.setColor(new Color(10, 16, 24, 90));
        g.fillRect(x - 66, y + 35, 136, 7);
    }

    private void grain(BufferedImage image) {
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                int d = (int) Math.round(random.nextGaussian() * 3.2);
                Color c = new Color(image.getRGB(x, y));
                image.setRGB(
                        x, y, new Color(clip(c.getRed() + d), clip(c.getGreen() + d), clip(c.getBlue() + d)).getRGB());
            }
        }
    }

    private static int clip(int v) {
        return Math.max(0, Math.min(255, v));
    }

    /** The strip behind the header: 4 px wide, and 40 px high where the header is 64. */
    /** Light that falls on the header from above, over whatever colour it has. */
    private static BufferedImage strip() {
        BufferedImage image = new BufferedImage(4, 40, BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < 40; y++) {
            int alpha = 30 - y * 30 / 40;
            for (int x = 0; x < 4; x++) {
                image.setRGB(x, y, alpha << 24 | 0xffffff);
            }
        }
        return image;
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static byte[] jpeg(BufferedImage image, float quality) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ImageOutputStream target = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam parameters = writer.getDefaultWriteParam();
            parameters.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            parameters.setCompressionQuality(quality);
            writer.setOutput(target);
            writer.write(null, new IIOImage(image, null, null), parameters);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}
