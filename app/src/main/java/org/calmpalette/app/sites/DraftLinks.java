package org.calmpalette.app.sites;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.EncodeHintType;
import com.google.zxing.LuminanceSource;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.ReaderException;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.common.GlobalHistogramBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import com.google.zxing.qrcode.encoder.QRCode;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.calmpalette.app.frames.FrameAddresses;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The link that opens a site's draft in the hand: whoever has it sees the draft as it then is and can change nothing. A site has one at
 * a time; it is over by itself after some days, and at once when it is withdrawn.
 */
@Service
class DraftLinks {
    static final int DAYS = 3;
    /** Modules of white around a code (ISO/IEC 18004, section 5.3.8). */
    private static final int QUIET = 4;

    /** Pixels of a module where a code is read again. */
    private static final int PIXELS = 4;

    private final JdbcClient database;
    private final FrameAddresses addresses;

    DraftLinks(JdbcClient database, FrameAddresses addresses) {
        this.database = database;
        this.addresses = addresses;
    }

    /**
     * A link.
     *
     * @param address without a page's path
     * @param until in UTC
     */
    record Link(String address, LocalDateTime until) {}

    /** The one of a site; empty if there is none, or it is over. */
    public Optional<Link> of(long siteId) {
        return database.sql("select id, until from site_hand where site_id = ? and until > ? order by id desc limit 1")
                .params(siteId, now())
                .query((row, n) -> link(row.getLong(1), row.getObject(2, LocalDateTime.class)))
                .optional();
    }

    private Link link(long id, LocalDateTime until) {
        return new Link(addresses.ofHand(id, until.toEpochSecond(ZoneOffset.UTC)), until);
    }

    /** Makes one in the place of the one that was there. */
    @Transactional
    public void make(long siteId) {
        withdraw(siteId);
        database.sql("insert into site_hand (site_id, until) values (?, ?)")
                .params(siteId, now().plusDays(DAYS))
                .update();
    }

    @Transactional
    public void withdraw(long siteId) {
        database.sql("delete from site_hand where site_id = ?").param(siteId).update();
    }

    /** The site that a link shows; empty if it was withdrawn, or is over. */
    @Transactional(readOnly = true)
    public Optional<Long> site(long linkId) {
        return database.sql("select site_id from site_hand where id = ? and until > ?")
                .params(linkId, now())
                .query(Long.class)
                .optional();
    }

    private static LocalDateTime now() {
        return LocalDateTime.now(ZoneOffset.UTC).truncatedTo(ChronoUnit.SECONDS);
    }

    /** A text as the modules of a QR code, a path of SVG in a square of {@code side}. */
    record Code(int side, String path) {
        /**
         * The code of a text. By chance one in some hundred codes has a place that a reader takes for one of its three corners; such a code is
         * masked in another way. What is returned was read again, from its pixels.
         */
        static Code of(String text) {
            return IntStream.range(-1, QRCode.NUM_MASK_PATTERNS)
                    .mapToObj(mask -> modules(text, mask))
                    .filter(code -> isRead(code, text))
                    .findFirst()
                    .map(Code::drawn)
                    .orElseThrow(() -> new IllegalStateException("no code of this text is read: " + text));
        }

        /** The modules, masked as ISO/IEC 18004 prefers ({@code mask} -1) or in one of its eight ways (0 to 7). */
        private static BitMatrix modules(String text, int mask) {
            Map<EncodeHintType, Object> hints = new EnumMap<>(EncodeHintType.class);
            hints.put(EncodeHintType.MARGIN, QUIET);
            hints.put(EncodeHintType.ERROR_CORRECTION, ErrorCorrectionLevel.M);
            if (mask >= 0) {
                hints.put(EncodeHintType.QR_MASK_PATTERN, mask);
            }
            try {
                return new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, hints);
            } catch (WriterException tooLong) {
                throw new IllegalStateException("an address is shorter than what a code holds", tooLong);
            }
        }

        private static boolean isRead(BitMatrix code, String text) {
            int side = code.getWidth() * PIXELS;
            int[] pixels = new int[side * side];
            for (int i = 0; i < pixels.length; i++) {
                pixels[i] = code.get(i % side / PIXELS, i / side / PIXELS) ? 0 : 0xffffff;
            }
            LuminanceSource seen = new RGBLuminanceSource(side, side, pixels);
            try {
                return new QRCodeReader()
                        .decode(new BinaryBitmap(new GlobalHistogramBinarizer(seen)))
                        .getText()
                        .equals(text);
            } catch (ReaderException notRead) {
                return false;
            }
        }

        private static Code drawn(BitMatrix code) {
            StringBuilder path = new StringBuilder();
            for (int y = 0; y < code.getHeight(); y++) {
                for (int x = 0; x < code.getWidth(); x++) {
                    int from = x;
                    while (x < code.getWidth() && code.get(x, y)) {
                        x++;
                    }
                    if (x > from) {
                        path.append('M')
                                .append(from)
                                .append(' ')
                                .append(y)
                                .append('h')
                                .append(x - from)
                                .append("v1h-")
                                .append(x - from)
                                .append('z');
                    }
                }
            }
            return new Code(code.getWidth(), path.toString());
        }
    }
}
