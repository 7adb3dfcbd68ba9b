package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.ReaderException;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What a camera reads of a code in a page: larger, and divided into dark and light in another way, than the product tried it with. */
public final class Scan {
    private static final int MODULE = 6;

    private Scan() {}

    /** What the code that is drawn in a text of HTML says; nothing if it is not read. */
    public static String of(String html) {
        Matcher m = Pattern.compile("viewBox=\"0 0 (\\d+) ").matcher(html);
        assertThat(m.find()).isTrue();
        int side = Integer.parseInt(m.group(1)) * MODULE;
        int[] pixels = new int[side * side];
        Arrays.fill(pixels, 0xffffff);
        Matcher run = Pattern.compile("M(\\d+) (\\d+)h(\\d+)v1").matcher(html);
        while (run.find()) {
            for (int y = 0; y < MODULE; y++) {
                int from =
                        (Integer.parseInt(run.group(2)) * MODULE + y) * side + Integer.parseInt(run.group(1)) * MODULE;
                Arrays.fill(pixels, from, from + Integer.parseInt(run.group(3)) * MODULE, 0);
            }
        }
        try {
            return new QRCodeReader()
                    .decode(new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(side, side, pixels))))
                    .getText();
        } catch (ReaderException notRead) {
            return "";
        }
    }
}
