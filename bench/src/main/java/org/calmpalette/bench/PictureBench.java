package org.calmpalette.bench;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.picture.LeadingColors;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.picture.Pixels;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** What is done with a photograph of 12 megapixels. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class PictureBench {
    private static final PictureEdit GREEN = new PictureEdit.Recolored(new Tint(
            Tint.Way.of("over"), Color.parse("#2b8a3e").orElseThrow(), Color.parse("#fff").orElseThrow(), 40));
    private byte[] photo;

    @Setup
    public void paint() throws IOException {
        photo = photo();
    }

    /** 4000 by 3000, with slopes and grain as photographs have them; the same each time. */
    static byte[] photo() throws IOException {
        BufferedImage image = new BufferedImage(4000, 3000, BufferedImage.TYPE_INT_RGB);
        int noise = 12345;
        for (int y = 0; y < 3000; y++) {
            for (int x = 0; x < 4000; x++) {
                noise = noise * 1_103_515_245 + 12_345;
                int grain = (noise >>> 16) % 13 - 6;
                double hill = 1500 + 500 * Math.sin(x / 500.0) + 200 * Math.sin(x / 90.0);
                int base = y > hill ? 60 + (y - (int) hill) / 20 : 200 - y / 20;
                image.setRGB(x, y, byteOf(base + grain) << 16 | byteOf(base * 3 / 4 + grain) << 8 | byteOf(base / 2 + 60 + grain));
            }
        }
        var writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam param = writer.getDefaultWriteParam();
        param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        param.setCompressionQuality(0.9f);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.write(null, new IIOImage(image, null, null), param);
        }
        return out.toByteArray();
    }

    private static int byteOf(int value) {
        return Math.max(0, Math.min(255, value));
    }

    /** Writes the same photograph for others to measure. */
    public static void main(String[] args) throws IOException {
        Files.write(Path.of(args[0]), photo());
    }

    @Benchmark
    public Object measured() {
        PictureSize size = PictureSize.read(photo).orElseThrow();
        return List.of(size, LeadingColors.of(Pixels.read(photo).orElseThrow(), 6));
    }

    @Benchmark
    public Object fourWidths() {
        return Lighter.copies("photo.jpg", photo, List.of(480, 800, 1280, 1920));
    }

    @Benchmark
    public Object recoloured() {
        return Lighter.edited("photo.jpg", photo, GREEN);
    }

    @Benchmark
    public Object asWebp() {
        return Lighter.asWebp("photo.jpg", photo, 1920, 80);
    }
}
