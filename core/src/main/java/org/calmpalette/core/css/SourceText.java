package org.calmpalette.core.css;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;

/**
 * A text file of a theme: its bytes, and the text they are read as. Edits are made on the text and land in the bytes,
 * so every byte outside an edit stays as it was, malformed ones included.
 */
public final class SourceText {
    private static final Pattern CSS_CHARSET = Pattern.compile("^@charset \"([^\"]*)\";");
    private static final Pattern META_CHARSET =
            Pattern.compile("<meta\\s[^>]*charset\\s*=\\s*[\"']?\\s*([-\\w:]+)", Pattern.CASE_INSENSITIVE);
    private final String file;
    private final byte[] bytes;
    private final Charset charset;
    private final int bom;
    private final String text;
    private int[] lineStarts;

    private SourceText(String file, byte[] bytes, Charset charset, int bom) {
        this.file = file;
        this.bytes = bytes;
        this.charset = charset;
        this.bom = bom;
        this.text = new String(bytes, bom, bytes.length - bom, charset);
    }

    /** Reads a stylesheet of which nobody knows who loads it. */
    public static SourceText stylesheet(String file, byte[] bytes) {
        return stylesheet(file, bytes, StandardCharsets.UTF_8);
    }

    /**
     * Reads a stylesheet: byte order mark, else {@code @charset}, else as whatever loads it is read.
     *
     * @param around the encoding of the page that loads it
     * @see <a href="https://www.w3.org/TR/css-syntax-3/#input-byte-stream">CSS Syntax 3, the input byte stream</a>
     */
    public static SourceText stylesheet(String file, byte[] bytes, Charset around) {
        return withBom(file, bytes).orElseGet(() -> {
            Matcher label = CSS_CHARSET.matcher(ascii(bytes, 1024));
            Charset charset = label.find() ? Encodings.of(file, label.group(1)).orElse(around) : around;
            return readable(new SourceText(file, bytes, charset, 0));
        });
    }

    /**
     * Reads a page: byte order mark, else {@code <meta charset>} in the first 1024 bytes, else UTF-8 if it is valid, else
     * windows-1252 as browsers fall back to.
     */
    public static SourceText page(String file, byte[] bytes) {
        return withBom(file, bytes).orElseGet(() -> {
            Matcher label = META_CHARSET.matcher(ascii(bytes, 1024));
            Optional<Charset> named = label.find() ? Encodings.of(file, label.group(1)) : Optional.empty();
            if (named.isPresent()) {
                return readable(new SourceText(file, bytes, named.get(), 0));
            }
            SourceText utf8 = new SourceText(file, bytes, StandardCharsets.UTF_8, 0);
            return readable(utf8.isMalformed() ? new SourceText(file, bytes, Encodings.FALLBACK, 0) : utf8);
        });
    }

    /** @throws UnreadableException if every second character is a NUL: UTF-16 or UTF-32 that does not say so */
    private static SourceText readable(SourceText text) {
        if (text.looksLikeUtf16WithoutBom()) {
            throw new UnreadableException(
                    text.file, "It is UTF-16 or UTF-32 without a byte order mark, which browsers read as rubbish.");
        }
        return text;
    }

    /** A text of our own, in UTF-8. */
    public static SourceText of(String file, String text) {
        return new SourceText(file, text.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8, 0);
    }

    private static Optional<SourceText> withBom(String file, byte[] b) {
        if (b.length >= 3 && b[0] == (byte) 0xEF && b[1] == (byte) 0xBB && b[2] == (byte) 0xBF) {
            return Optional.of(new SourceText(file, b, StandardCharsets.UTF_8, 3));
        }
        if (b.length >= 2 && b[0] == (byte) 0xFE && b[1] == (byte) 0xFF) {
            return Optional.of(new SourceText(file, b, StandardCharsets.UTF_16BE, 2));
        }
        if (b.length >= 2 && b[0] == (byte) 0xFF && b[1] == (byte) 0xFE) {
            return Optional.of(new SourceText(file, b, StandardCharsets.UTF_16LE, 2));
        }
        return Optional.empty();
    }

    private static String ascii(byte[] bytes, int most) {
        return new String(bytes, 0, Math.min(bytes.length, most), StandardCharsets.ISO_8859_1);
    }

    /** The text of a file cannot be told, because browsers do not read its encoding. */
    public static final class UnreadableException extends BadInputException {
        private final String why;

        UnreadableException(String file, String why) {
            super(file + ", line 1: " + why, "Save it as UTF-8.");
            this.why = why;
        }

        /** A sentence that speaks of the file as "it". */
        public String why() {
            return why;
        }
    }

    /** Path of the file inside its theme, with {@code /}. */
    public String file() {
        return file;
    }

    public String text() {
        return text;
    }

    public Charset charset() {
        return charset;
    }

    public int size() {
        return bytes.length;
    }

    /** A copy of the bytes. */
    public byte[] bytes() {
        return bytes.clone();
    }

    /** True if some bytes are not valid in the encoding; browsers show a replacement character for them. */
    public boolean isMalformed() {
        return text.indexOf('\uFFFD') >= 0
                && !Arrays.equals(text.getBytes(charset), Arrays.copyOfRange(bytes, bom, bytes.length));
    }

    /** True for UTF-16 without a byte order mark, which browsers read as rubbish. */
    public boolean looksLikeUtf16WithoutBom() {
        if (bom > 0 || bytes.length < 8) {
            return false;
        }
        int zeros = 0;
        int looked = Math.min(bytes.length, 512);
        for (int i = 0; i < looked; i++) {
            zeros += bytes[i] == 0 ? 1 : 0;
        }
        return zeros > looked / 3;
    }

    /** Line of an offset in the text, from 1. CR, LF, CRLF and FF end a line. */
    public int line(int offset) {
        int found = Arrays.binarySearch(lineStarts(), offset);
        return found >= 0 ? found + 1 : -found - 1;
    }

    /** Column of an offset in UTF-16 code units, from 1. */
    public int column(int offset) {
        return offset - lineStarts()[line(offset) - 1] + 1;
    }

    /** The characters of a line, from 1, without its end. */
    public String lineText(int line) {
        int[] starts = lineStarts();
        int end = line < starts.length ? starts[line] : text.length();
        while (end > starts[line - 1] && Escapes.isNewline(text.charAt(end - 1))) {
            end--;
        }
        return text.substring(starts[line - 1], end);
    }

    /** Offset of the first character of a line, from 1. */
    public int lineStart(int line) {
        return lineStarts()[line - 1];
    }

    /** Offset after the last character of a line, its end not counted. */
    public int lineEnd(int line) {
        return lineStart(line) + lineText(line).length();
    }

    /** The line end that the file uses; LF where it has none. */
    public String newline() {
        return text.contains("\r\n") ? "\r\n" : text.indexOf('\r') >= 0 && text.indexOf('\n') < 0 ? "\r" : "\n";
    }

    private synchronized int[] lineStarts() {
        if (lineStarts == null) {
            int[] starts = new int[text.length() / 20 + 16];
            int count = 1;
            for (int i = 0; i < text.length(); i++) {
                char c = text.charAt(i);
                if (Escapes.isNewline(c)) {
                    if (c == '\r' && i + 1 < text.length() && text.charAt(i + 1) == '\n') {
                        i++;
                    }
                    if (count == starts.length) {
                        starts = Arrays.copyOf(starts, count * 2);
                    }
                    starts[count++] = i + 1;
                }
            }
            lineStarts = Arrays.copyOf(starts, count);
        }
        return lineStarts;
    }

    /**
     * The file with edits made. Bytes outside them stay exactly as they are.
     *
     * @throws IllegalArgumentException if two edits overlap, one lies outside the text, or a replacement cannot be
     *     written in the file's encoding
     */
    public byte[] withEdits(List<Edit> edits) {
        List<Edit> sorted = edits.stream()
                .sorted(Comparator.comparingInt(Edit::start).thenComparingInt(Edit::end))
                .toList();
        int[] wanted = new int[sorted.size() * 2];
        int last = 0;
        for (int i = 0; i < sorted.size(); i++) {
            Edit e = sorted.get(i);
            if (e.start() < last || e.end() > text.length()) {
                throw new IllegalArgumentException(file + ", line " + line(Math.min(e.start(), text.length()))
                        + ": two changes touch the same characters. Make them one after the other.");
            }
            if (!charset.newEncoder().canEncode(e.replacement())) {
                throw new IllegalArgumentException(file + " is written in " + charset
                        + ", which has no sign for some of \"" + e.replacement() + "\". Save the file as UTF-8 first.");
            }
            last = e.end();
            wanted[2 * i] = e.start();
            wanted[2 * i + 1] = e.end();
        }
        int[] offsets = byteOffsets(wanted);
        ByteArrayOutputStream out = new ByteArrayOutputStream(bytes.length + 64);
        int from = 0;
        for (int i = 0; i < sorted.size(); i++) {
            out.write(bytes, from, offsets[2 * i] - from);
            out.writeBytes(sorted.get(i).replacement().getBytes(charset));
            from = offsets[2 * i + 1];
        }
        out.write(bytes, from, bytes.length - from);
        return out.toByteArray();
    }

    /** Byte offsets of ascending character offsets. */
    private int[] byteOffsets(int[] wanted) {
        int[] result = new int[wanted.length];
        if (text.length() == bytes.length - bom) {
            for (int i = 0; i < wanted.length; i++) {
                result[i] = wanted[i] + bom;
            }
            return result;
        }
        // Decoding again one character at a time is the only way that is right for every encoding and for bad bytes.
        CharsetDecoder decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE);
        ByteBuffer in = ByteBuffer.wrap(bytes, bom, bytes.length - bom);
        CharBuffer one = CharBuffer.allocate(1);
        CharBuffer pair = CharBuffer.allocate(2);
        int chars = 0;
        for (int i = 0; i < wanted.length; i++) {
            while (chars < wanted[i] && in.hasRemaining()) {
                one.clear();
                decoder.decode(in, one, true);
                if (one.position() == 0) {
                    pair.clear();
                    decoder.decode(in, pair, true);
                    chars += pair.position();
                } else {
                    chars++;
                }
            }
            result[i] = in.position();
        }
        return result;
    }
}
