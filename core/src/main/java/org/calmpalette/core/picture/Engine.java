package org.calmpalette.core.picture;

import com.luciad.imageio.webp.CompressionType;
import com.luciad.imageio.webp.WebPImageReaderSpi;
import com.luciad.imageio.webp.WebPImageWriterSpi;
import com.luciad.imageio.webp.WebPWriteParam;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Optional;
import java.util.zip.Deflater;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.spi.IIORegistry;
import javax.imageio.stream.ImageInputStream;
import org.calmpalette.core.BadInputException;

/**
 * The readers and writers of ImageIO that are used here. Readers are Java throughout, because what they read is a stranger's; the one
 * writer that is native code, libwebp, only sees pixels that were read by these.
 */
final class Engine {
    static {
        // It comes with the writer and would be asked for strangers' files as well.
        IIORegistry registry = IIORegistry.getDefaultInstance();
        WebPImageReaderSpi nativeReader = registry.getServiceProviderByClass(WebPImageReaderSpi.class);
        if (nativeReader != null) {
            registry.deregisterServiceProvider(nativeReader);
        }
    }

    private Engine() {}

    /** The reader of what a stream holds; empty if none knows it. */
    static Optional<ImageReader> reader(ImageInputStream in) {
        Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
        return readers.hasNext() ? Optional.of(readers.next()) : Optional.empty();
    }

    /**
     * @param format jpeg, png or webp
     * @param quality 30 to 95; PNG has none
     */
    static byte[] written(BufferedImage image, String format, int quality) throws IOException {
        try {
            return format.equals("webp") ? webp(image, quality) : plain(image, format, quality);
        } catch (LinkageError missing) {
            throw new BadInputException(
                    "WebP cannot be written on this machine: " + missing.getMessage(),
                    "Use JPEG or PNG, or run on Linux, macOS or Windows with a folder for temporary files that may hold"
                            + " programs.");
        }
    }

    private static byte[] plain(BufferedImage image, String format, int quality) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName(format).next();
        ImageWriteParam param = writer.getDefaultWriteParam();
        if (format.equals("jpeg")) {
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality(quality / 100f);
        }
        return written(image, writer, param);
    }

    /** A PNG as small as the deflate of ImageIO makes it. */
    static byte[] tightPng(BufferedImage image) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("png").next();
        ImageWriteParam param = writer.getDefaultWriteParam();
        param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        param.setCompressionQuality(1 - Deflater.BEST_COMPRESSION / 9f);
        return written(image, writer, param);
    }

    private static byte[] webp(BufferedImage image, int quality) throws IOException {
        ImageWriter writer = new WebPImageWriterSpi().createWriterInstance(null);
        WebPWriteParam param = (WebPWriteParam) writer.getDefaultWriteParam();
        param.setCompressionType(CompressionType.Lossy);
        param.setCompressionQuality(quality / 100f);
        // Slower and a little lighter than the usual 4; with one thread it gives the same bytes each time.
        param.setMethod(5);
        param.setThreadLevel(0);
        return written(whole(image), writer, param);
    }

    /** A picture with pixels of its own: of one that is a part of another the native writer would read the other's from its start. */
    private static BufferedImage whole(BufferedImage image) {
        if (image.getRaster().getParent() == null) {
            return image;
        }
        boolean alpha = image.getColorModel().hasAlpha();
        BufferedImage own = new BufferedImage(
                image.getWidth(), image.getHeight(), alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        int[] row = new int[image.getWidth()];
        for (int y = 0; y < image.getHeight(); y++) {
            image.getRGB(0, y, row.length, 1, row, 0, row.length);
            own.setRGB(0, y, row.length, 1, row, 0, row.length);
        }
        return own;
    }

    private static byte[] written(BufferedImage image, ImageWriter writer, ImageWriteParam param) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.write(null, new IIOImage(image, null, null), param);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}
