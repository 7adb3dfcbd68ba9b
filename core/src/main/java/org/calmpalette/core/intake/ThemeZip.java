package org.calmpalette.core.intake;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.zip.CRC32;
import java.util.zip.ZipException;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Limits;
import org.calmpalette.core.theme.ThemeFiles;

/**
 * Themes as zip files. A zip from outside is hostile until shown otherwise: paths that climb, links, bombs and broken
 * files are refused with a message that names the file and the mend.
 */
public final class ThemeZip {
    public static final int MOST_FILES = Limits.FILES;
    /** Bytes, all files unpacked. */
    public static final long MOST_UNPACKED = Limits.ALL_BYTES;
    /** Bytes of one file, unpacked. */
    public static final long LARGEST_FILE = Limits.FILE;
    /** How many times larger a file may be than its packed form, if it is larger than {@link #RATIO_FROM}. */
    public static final int MOST_RATIO = 200;

    private static final long RATIO_FROM = 1_000_000;
    private static final int LONGEST_PATH = 240;
    /** Bytes of the record at the end of a zip, without its comment: APPNOTE, section 4.3.16. */
    private static final int END_RECORD = 22;
    /** Bytes of the list of entries: twice what 2,000 files with the longest paths take. */
    private static final long LARGEST_DIRECTORY = 4_000_000;
    /** Stored, deflated, deflated in 64 kB windows, bzip2: APPNOTE, section 4.4.5. Others need what is not here. */
    private static final Set<Integer> METHODS = Set.of(0, 8, 9, 12);
    /** Names that one widespread system takes for devices, whatever their ending: common practice. */
    private static final Pattern DEVICE = Pattern.compile("(?i)(con|prn|aux|nul|com[0-9]|lpt[0-9])(\\..*)?");

    private ThemeZip() {}

    /** Takes the files one by one, so that they need not all be in memory. */
    public interface Sink {
        void accept(String path, byte[] contents);
    }

    /** Told before each file: how many are done, of how many. */
    public interface Progress {
        void at(int done, int total, String path);
    }

    /**
     * What was read.
     *
     * @param ignored entries that were passed over: what file managers and version control leave behind
     */
    public record Report(int files, long bytes, List<String> ignored) {}

    /**
     * Reads a theme. If all files lie in one folder, that folder is taken off.
     *
     * @param shownName what the person called the zip
     * @throws BadInputException if it is not a theme, or not safe
     * @throws IOException if the disk fails
     */
    public static Report read(Path zip, String shownName, Sink sink, Progress progress) throws IOException {
        checkDirectory(zip, shownName);
        try (ZipFile file = ZipFile.builder().setPath(zip).get()) {
            List<String> ignored = new ArrayList<>();
            Map<String, ZipArchiveEntry> entries = entries(file, shownName, ignored);
            return unpack(file, withoutCommonFolder(entries), shownName, ignored, sink, progress);
        } catch (ZipException | IllegalArgumentException e) {
            throw broken(shownName);
        } catch (IOException e) {
            if (e.getMessage() != null && e.getMessage().contains("No space left")) {
                throw e;
            }
            throw broken(shownName);
        }
    }

    /** The list at the end of a zip is read as a whole, so one that is far too long is refused before. */
    private static void checkDirectory(Path zip, String shownName) throws IOException {
        try (SeekableByteChannel in = java.nio.file.Files.newByteChannel(zip)) {
            int look = (int) Math.min(in.size(), END_RECORD + 0xFFFF);
            ByteBuffer tail = ByteBuffer.allocate(look).order(ByteOrder.LITTLE_ENDIAN);
            in.position(in.size() - look);
            while (tail.hasRemaining() && in.read(tail) >= 0) {
                // Until it is full.
            }
            for (int at = tail.position() - END_RECORD; at >= 0; at--) {
                if (tail.getInt(at) == 0x06054b50) {
                    long size = Integer.toUnsignedLong(tail.getInt(at + 12));
                    long reach = in.size() - look + at - Integer.toUnsignedLong(tail.getInt(at + 16));
                    boolean large = tail.getShort(at + 10) == -1
                            || size > LARGEST_DIRECTORY
                            || reach > LARGEST_DIRECTORY && size != 0xFFFFFFFFL;
                    if (large) {
                        throw new BadInputException(
                                shownName + " lists more files and folders than a theme has; the most is " + MOST_FILES
                                        + ".",
                                "Pack only the theme: pages, stylesheets, pictures and fonts.");
                    }
                    return;
                }
            }
        }
    }

    private static BadInputException broken(String shownName) {
        return new BadInputException(
                shownName + " is not a whole zip file: it is cut off or damaged.",
                "Pack the theme again, or upload it once more.");
    }

    private static Map<String, ZipArchiveEntry> entries(ZipFile file, String shownName, List<String> ignored) {
        Map<String, ZipArchiveEntry> entries = new LinkedHashMap<>();
        Map<String, String> lowerCase = new HashMap<>();
        int count = 0;
        for (ZipArchiveEntry entry : Collections.list(file.getEntries())) {
            String name = entry.getName().replace('\\', '/');
            check(entry, name);
            if (entry.isDirectory() || name.endsWith("/")) {
                continue;
            }
            if (++count > MOST_FILES) {
                throw new BadInputException(
                        shownName + " holds more than " + MOST_FILES + " files.",
                        "Pack only the theme: pages, stylesheets, pictures and fonts.");
            }
            String path = normal(name);
            if (isLitter(path)) {
                ignored.add(path);
                continue;
            }
            String twin = lowerCase.put(
                    Normalizer.normalize(path, Normalizer.Form.NFC).toLowerCase(Locale.ROOT), path);
            if (twin != null) {
                throw new BadInputException(
                        "“" + path + "” and “" + twin
                                + "” differ only in letter case or in how an accent is spelt, or are the"
                                + " same file twice; many web servers and disks keep only one of them.",
                        "Rename one of the two and pack again.");
            }
            entries.put(path, entry);
        }
        for (String path : entries.keySet()) {
            for (int slash = path.indexOf('/'); slash > 0; slash = path.indexOf('/', slash + 1)) {
                String folder = path.substring(0, slash);
                if (entries.containsKey(folder)) {
                    throw new BadInputException(
                            "“" + folder + "” is a file, and the folder of “" + path
                                    + "” at once; no disk can keep both.",
                            "Rename one of the two and pack again.");
                }
            }
        }
        if (entries.keySet().stream().noneMatch(p -> Paths.isPage(p) || Paths.isStylesheet(p))) {
            throw new BadInputException(
                    shownName + " holds no page (.html) and no stylesheet (.css).",
                    "Pack the folder with the theme's pages and stylesheets.");
        }
        return entries;
    }

    private static void check(ZipArchiveEntry entry, String name) {
        if (name.startsWith("/") || name.matches("[A-Za-z]:.*")) {
            throw new BadInputException(
                    "“" + name + "” is an absolute path.", "Pack the theme so that paths start at its own folder.");
        }
        if (List.of(name.split("/")).contains("..")) {
            throw new BadInputException(
                    "“" + name + "” climbs out of the theme's folder.",
                    "Pack the theme again without “..” in its paths.");
        }
        if (entry.isUnixSymlink()) {
            throw new BadInputException(
                    "“" + name + "” is a link to another file.", "Pack the file itself in its place.");
        }
        if (!METHODS.contains(entry.getMethod())) {
            throw new BadInputException(
                    "“" + name + "” is packed in a way that cannot be read here.",
                    "Pack the theme as an ordinary zip.");
        }
        for (String part : name.split("/")) {
            boolean device = DEVICE.matcher(part).matches();
            if (device
                    || part.endsWith(" ")
                    || part.endsWith(".") && !part.equals(".") && !part.equals("..")
                    || part.matches(".*[<>:\"|?*].*")) {
                throw new BadInputException(
                        "“" + name + "” has a name that not every system can keep"
                                + (device
                                        ? ": one takes it for a device."
                                        : part.endsWith(".") || part.endsWith(" ")
                                                ? ": it ends with a dot or a space."
                                                : ": it holds one of < > : \" | ? *."),
                        "Rename it and pack again.");
            }
        }
        if (entry.getGeneralPurposeBit().usesEncryption()) {
            throw new BadInputException("“" + name + "” is encrypted.", "Pack the theme without a password.");
        }
        if (name.length() > LONGEST_PATH || name.chars().anyMatch(c -> c < 0x20 || c == 0x7f)) {
            throw new BadInputException(
                    "A path is longer than " + LONGEST_PATH + " characters or holds control characters: “"
                            + name.substring(0, Math.min(60, name.length())).replaceAll("\\p{Cntrl}", "?") + "…”.",
                    "Give it a plain, shorter name.");
        }
    }

    private static String normal(String name) {
        List<String> parts = new ArrayList<>(List.of(name.split("/")));
        parts.removeIf(p -> p.isEmpty() || p.equals("."));
        return String.join("/", parts);
    }

    private static boolean isLitter(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        return path.startsWith("__MACOSX/")
                || path.contains("/__MACOSX/")
                || name.equals(".DS_Store")
                || name.equalsIgnoreCase("Thumbs.db")
                || path.startsWith(".git/")
                || path.contains("/.git/")
                || path.contains("node_modules/");
    }

    private static Map<String, ZipArchiveEntry> withoutCommonFolder(Map<String, ZipArchiveEntry> entries) {
        String first = entries.keySet().iterator().next();
        int slash = first.indexOf('/');
        String folder = slash < 0 ? "" : first.substring(0, slash + 1);
        if (folder.isEmpty() || !entries.keySet().stream().allMatch(p -> p.startsWith(folder))) {
            return entries;
        }
        Map<String, ZipArchiveEntry> shorter = new LinkedHashMap<>();
        entries.forEach((path, entry) -> shorter.put(path.substring(folder.length()), entry));
        return shorter;
    }

    private static Report unpack(
            ZipFile file,
            Map<String, ZipArchiveEntry> entries,
            String shownName,
            List<String> ignored,
            Sink sink,
            Progress progress)
            throws IOException {
        long total = 0;
        int done = 0;
        for (Map.Entry<String, ZipArchiveEntry> e : entries.entrySet()) {
            progress.at(done++, entries.size(), e.getKey());
            byte[] contents = unpack(file, e.getValue(), e.getKey(), shownName, total);
            total += contents.length;
            sink.accept(e.getKey(), contents);
        }
        progress.at(done, entries.size(), "");
        return new Report(done, total, List.copyOf(ignored));
    }

    private static byte[] unpack(ZipFile file, ZipArchiveEntry entry, String path, String shownName, long before)
            throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] buffer = new byte[16_384];
        CRC32 crc = new CRC32();
        long packed = Math.max(1, entry.getCompressedSize());
        if (!file.canReadEntryData(entry)) {
            throw new BadInputException(
                    "“" + path + "” is packed in a way that cannot be read here.",
                    "Pack the theme as an ordinary zip.");
        }
        try (InputStream in = file.getInputStream(entry)) {
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                out.write(buffer, 0, n);
                crc.update(buffer, 0, n);
                // The sizes written in a zip may lie, so what really comes out is counted.
                if (out.size() > RATIO_FROM && out.size() / packed > MOST_RATIO) {
                    throw new BadInputException(
                            "“" + path + "” unpacks to more than " + MOST_RATIO
                                    + " times its packed size, as bombs do.",
                            "Leave it out, or pack it without compression.");
                }
                if (out.size() > LARGEST_FILE) {
                    throw new BadInputException(
                            "“" + path + "” is larger than " + LARGEST_FILE / 1_000_000 + " MB.",
                            "Make it smaller, or leave it out.");
                }
                if (before + out.size() > MOST_UNPACKED) {
                    throw new BadInputException(
                            shownName + " unpacks to more than " + MOST_UNPACKED / 1_000_000 + " MB.",
                            "Leave out what the site does not show, such as pictures in print resolution.");
                }
            }
        }
        if (entry.getSize() >= 0 && entry.getSize() != out.size()
                || entry.getCrc() >= 0 && entry.getCrc() != crc.getValue()) {
            throw new BadInputException(
                    "“" + path + "” in " + shownName + " is damaged: its check sum is wrong.",
                    "Pack the theme again, or upload it once more.");
        }
        return out.toByteArray();
    }

    /** Packs files in order of path; the same files give the same bytes. */
    public static void write(ThemeFiles files, OutputStream target) throws IOException {
        try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(target)) {
            zip.setEncoding(StandardCharsets.UTF_8.name());
            for (String path : files.paths()) {
                ZipArchiveEntry entry = new ZipArchiveEntry(path);
                // A fixed date: the oldest that zip files can say.
                entry.setTime(java.time.LocalDateTime.of(1980, 1, 1, 0, 0)
                        .atZone(java.time.ZoneId.systemDefault())
                        .toInstant()
                        .toEpochMilli());
                zip.putArchiveEntry(entry);
                zip.write(files.read(path));
                zip.closeArchiveEntry();
            }
        }
    }
}
