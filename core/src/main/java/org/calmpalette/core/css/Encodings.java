package org.calmpalette.core.css;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The labels of encodings that browsers know, and no others: Java knows many more, such as UTF-32 and EBCDIC, under which a
 * browser would see something else.
 *
 * @see <a href="https://encoding.spec.whatwg.org/#names-and-labels">Encoding Standard, section 4.2</a>; the table is from memory
 */
final class Encodings {
    /** What browsers read a page as that names no encoding and is not UTF-8. */
    static final Charset FALLBACK = Charset.forName("windows-1252");

    private static final Map<String, String> BY_LABEL = new HashMap<>();
    /** Encodings in which the meaning of a byte depends on all before it, so that single characters cannot be edited. */
    private static final Set<String> STATEFUL = Set.of("ISO-2022-JP");
    /** Labels that browsers know and refuse: the page shows a single replacement character. */
    private static final Set<String> REFUSED =
            Set.of("replacement", "csiso2022kr", "hz-gb-2312", "iso-2022-cn", "iso-2022-cn-ext", "iso-2022-kr");

    static {
        // UTF-16 in a label means UTF-8: whoever can read the label reads bytes.
        labels(
                "UTF-8",
                "unicode-1-1-utf-8 unicode11utf8 unicode20utf8 utf-8 utf8 x-unicode20utf8 utf-16 utf-16le utf-16be unicodefffe csunicode"
                        + " iso-10646-ucs-2 ucs-2 unicode unicodefeff");
        labels("IBM866", "866 cp866 csibm866 ibm866");
        labels(
                "ISO-8859-2",
                "csisolatin2 iso-8859-2 iso-ir-101 iso8859-2 iso88592 iso_8859-2 iso_8859-2:1987 l2 latin2");
        labels(
                "ISO-8859-3",
                "csisolatin3 iso-8859-3 iso-ir-109 iso8859-3 iso88593 iso_8859-3 iso_8859-3:1988 l3 latin3");
        labels(
                "ISO-8859-4",
                "csisolatin4 iso-8859-4 iso-ir-110 iso8859-4 iso88594 iso_8859-4 iso_8859-4:1988 l4 latin4");
        labels(
                "ISO-8859-5",
                "csisolatincyrillic cyrillic iso-8859-5 iso-ir-144 iso8859-5 iso88595 iso_8859-5 iso_8859-5:1988");
        labels(
                "ISO-8859-6",
                "arabic asmo-708 csiso88596e csiso88596i csisolatinarabic ecma-114 iso-8859-6 iso-8859-6-e iso-8859-6-i iso-ir-127"
                        + " iso8859-6 iso88596 iso_8859-6 iso_8859-6:1987");
        labels(
                "ISO-8859-7",
                "csisolatingreek ecma-118 elot_928 greek greek8 iso-8859-7 iso-ir-126 iso8859-7 iso88597 iso_8859-7 iso_8859-7:1987 sun_eu_greek");
        labels(
                "ISO-8859-8",
                "csiso88598e csisolatinhebrew hebrew iso-8859-8 iso-8859-8-e iso-ir-138 iso8859-8 iso88598 iso_8859-8 iso_8859-8:1988 visual"
                        + " csiso88598i iso-8859-8-i logical");
        labels("ISO-8859-13", "iso-8859-13 iso8859-13 iso885913");
        labels("ISO-8859-15", "csisolatin9 iso-8859-15 iso8859-15 iso885915 iso_8859-15 l9");
        labels("ISO-8859-16", "iso-8859-16");
        labels("KOI8-R", "cskoi8r koi koi8 koi8-r koi8_r");
        labels("KOI8-U", "koi8-ru koi8-u");
        labels("x-MacRoman", "csmacintosh mac macintosh x-mac-roman");
        labels("x-windows-874", "dos-874 iso-8859-11 iso8859-11 iso885911 tis-620 windows-874");
        labels("windows-1250", "cp1250 windows-1250 x-cp1250");
        labels("windows-1251", "cp1251 windows-1251 x-cp1251");
        labels(
                "windows-1252",
                "ansi_x3.4-1968 ascii cp1252 cp819 csisolatin1 ibm819 iso-8859-1 iso-ir-100 iso8859-1 iso88591 iso_8859-1 iso_8859-1:1987"
                        + " l1 latin1 us-ascii windows-1252 x-cp1252");
        labels("windows-1253", "cp1253 windows-1253 x-cp1253");
        labels(
                "windows-1254",
                "cp1254 csisolatin5 iso-8859-9 iso-ir-148 iso8859-9 iso88599 iso_8859-9 iso_8859-9:1989 l5 latin5 windows-1254 x-cp1254");
        labels("windows-1255", "cp1255 windows-1255 x-cp1255");
        labels("windows-1256", "cp1256 windows-1256 x-cp1256");
        labels("windows-1257", "cp1257 windows-1257 x-cp1257");
        labels("windows-1258", "cp1258 windows-1258 x-cp1258");
        labels("x-MacCyrillic", "x-mac-cyrillic x-mac-ukrainian");
        labels("GB18030", "chinese csgb2312 csiso58gb231280 gb2312 gb_2312 gb_2312-80 gbk iso-ir-58 x-gbk gb18030");
        labels("Big5-HKSCS", "big5 big5-hkscs cn-big5 csbig5 x-x-big5");
        labels("EUC-JP", "cseucpkdfmtjapanese euc-jp x-euc-jp");
        labels("ISO-2022-JP", "csiso2022jp iso-2022-jp");
        labels("windows-31j", "csshiftjis ms932 ms_kanji shift-jis shift_jis sjis windows-31j x-sjis");
        labels(
                "x-windows-949",
                "cseuckr csksc56011987 euc-kr iso-ir-149 korean ks_c_5601-1987 ks_c_5601-1989 ksc5601 ksc_5601 windows-949");
    }

    private Encodings() {}

    private static void labels(String charset, String labels) {
        for (String label : labels.split(" ")) {
            BY_LABEL.put(label, charset);
        }
    }

    /**
     * The encoding that a label means.
     *
     * @return empty if browsers know no such label, and go on as if there were none
     * @throws SourceText.UnreadableException if browsers refuse the encoding, or it cannot be edited here
     */
    static Optional<Charset> of(String file, String label) {
        String name = label.strip().toLowerCase(Locale.ROOT);
        if (REFUSED.contains(name)) {
            throw new SourceText.UnreadableException(
                    file, "It names the encoding " + name + ", which browsers refuse to read.");
        }
        String charset = BY_LABEL.get(name);
        if (charset == null) {
            return Optional.empty();
        }
        if (STATEFUL.contains(charset)) {
            throw new SourceText.UnreadableException(
                    file, "It is written in " + charset + ", in which single characters cannot be changed safely.");
        }
        return Optional.of(charset.equals("UTF-8") ? StandardCharsets.UTF_8 : Charset.forName(charset));
    }
}
