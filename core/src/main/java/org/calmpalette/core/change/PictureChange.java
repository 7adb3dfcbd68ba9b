package org.calmpalette.core.change;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.Copies;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.picture.PictureFile;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Limits;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.AbsentPicture;
import org.calmpalette.core.usage.Address;
import org.calmpalette.core.usage.Addresses;

/** Changes of the pictures themselves. The earlier bytes stay in the snapshot before. */
public final class PictureChange {
    /** Bytes of one picture that comes in. */
    public static final long LARGEST = Limits.FILE;

    private PictureChange() {}

    /**
     * The same picture, smaller or more compressed.
     *
     * @param width in pixels at most
     * @param quality 30 to 95 for JPEG
     * @throws BadInputException if it does not get lighter
     */
    public static Change lighter(Theme theme, String path, int width, int quality) {
        byte[] before = known(theme, path);
        byte[] light = Lighter.of(path, before, width, quality);
        if (light.length >= before.length) {
            throw new BadInputException(
                    path + " does not get lighter so: " + light.length + " bytes instead of " + before.length + ".",
                    "Choose a smaller width or a lower quality.");
        }
        return withoutCopies(
                theme,
                path,
                Change.of("Made " + path + " lighter: " + Math.round(light.length / 1000.0) + " kB instead of "
                                + Math.round(before.length / 1000.0) + " kB")
                        .withFile(path, light));
    }

    /** Copies of what was there before would show it still. */
    static Change withoutCopies(Theme theme, String path, Change change) {
        Change now = change;
        for (String copy : theme.media().copies(path).values()) {
            now = now.withoutFile(copy);
        }
        return now;
    }

    /**
     * Narrower copies of a picture beside it, in the place of those that are there. Pages that are built name them.
     *
     * @throws BadInputException if it cannot be read or written, or is so narrow that none would spare anything
     */
    public static Change copied(Theme theme, String path) {
        byte[] bytes = known(theme, path);
        int own = theme.media().facts(path).map(MediaFacts::width).orElse(0);
        List<Integer> widths = Copies.widths(own);
        if (widths.isEmpty()) {
            throw new BadInputException(
                    path + " is " + own + " px wide; narrower copies would spare nothing.",
                    "Copies are made of pictures that are wider than " + Math.round(Copies.USUAL.get(0) / 0.8)
                            + " px.");
        }
        SortedMap<Integer, byte[]> made = Lighter.copies(path, bytes, widths);
        // One that weighs as much as the whole spares nothing.
        made.values().removeIf(copy -> copy.length >= bytes.length);
        if (made.isEmpty()) {
            throw new BadInputException(
                    "No narrower copy of " + path + " would weigh less than it does.", "Leave it as it is.");
        }
        Change change = Change.of("Made narrower copies of " + path + ": "
                + String.join(", ", made.keySet().stream().map(String::valueOf).toList()) + " px");
        for (Map.Entry<Integer, String> before : theme.media().copies(path).entrySet()) {
            change = made.containsKey(before.getKey()) ? change : change.withoutFile(before.getValue());
        }
        for (Map.Entry<Integer, byte[]> copy : made.entrySet()) {
            change = change.withFile(Copies.path(path, copy.getKey()), copy.getValue());
        }
        return change;
    }

    /**
     * Several pictures written anew at once.
     *
     * @param light what they become, by path
     * @throws BadInputException if there are none, or one is not in the theme any more
     */
    public static Change lighter(Theme theme, Map<String, byte[]> light) {
        if (light.isEmpty()) {
            throw new BadInputException("No picture was chosen.", "Tick those that are to become lighter.");
        }
        long before = 0;
        long after = 0;
        for (Map.Entry<String, byte[]> e : light.entrySet()) {
            before += known(theme, e.getKey()).length;
            after += e.getValue().length;
        }
        Change change = Change.of("Made " + light.size() + (light.size() == 1 ? " picture" : " pictures") + " lighter: "
                + Math.round(after / 1000.0) + " kB instead of " + Math.round(before / 1000.0) + " kB");
        for (Map.Entry<String, byte[]> e : light.entrySet()) {
            change = withoutCopies(theme, e.getKey(), change.withFile(e.getKey(), e.getValue()));
        }
        return change;
    }

    /**
     * The same picture with its pixels changed. What is marked in one that is cut is marked where it is then.
     *
     * @throws BadInputException if it cannot be read or written, or is too small for what is asked
     */
    public static Change edited(Theme theme, String path, PictureEdit edit) {
        byte[] before = known(theme, path);
        byte[] after = Lighter.edited(path, before, edit);
        Change change = withoutCopies(
                theme, path, Change.of(path + ": " + edit.inWords()).withFile(path, after));
        return edit instanceof PictureEdit.Fitted fitted
                ? change.withPalette(theme, marked(theme.palette(), path, path, before, fitted))
                : change;
    }

    /**
     * A part of a picture as a picture of its own, for the windows of one band: there every setting that has the whole one gets the
     * part as its default.
     *
     * @param bandKey of any band but the widest, whose windows see the whole one
     * @throws BadInputException if no setting has the picture there, or it cannot be cut so
     */
    public static Change cutFor(Theme theme, String path, String bandKey, PictureEdit.Fitted fitted) {
        byte[] before = known(theme, path);
        Bands bands = theme.palette().bands();
        Band band = bands.band(bandKey)
                .filter(b -> !b.equals(bands.widest()))
                .orElseThrow(() -> new BadInputException(
                        "“" + bandKey + "” is no band that a picture is cut for.",
                        "Choose one of the narrower bands of the theme."));
        List<Setting> naming = theme.palette().naming(path, band);
        if (naming.isEmpty()) {
            throw new BadInputException(
                    "No setting has " + path + " in windows of " + band.label() + ".",
                    "Make it a setting first: only a setting has a picture of its own by band.");
        }
        int dot = path.lastIndexOf('.');
        String part = path.substring(0, dot) + "-" + band.key() + path.substring(dot);
        for (int n = 2; taken(theme, part); n++) {
            part = path.substring(0, dot) + "-" + band.key() + "-" + n + path.substring(dot);
        }
        byte[] after = Lighter.edited(path, before, fitted);
        checkRoom(theme, after);
        String made = part;
        Change change = Change.of("Cut " + part + " out of " + path + ", "
                        + fitted.width() + " by " + fitted.height() + " px, for "
                        + naming.stream().map(s -> "“" + s.label() + "”").collect(Collectors.joining(", "))
                        + " in windows of " + band.label())
                .withFile(part, after);
        return change.withPalette(
                change.applied(theme),
                marked(theme.palette().withPictureIn(band, path, made), path, made, before, fitted));
    }

    private static boolean taken(Theme theme, String path) {
        return theme.palette().moved().containsKey(path)
                || theme.files().paths().stream().anyMatch(p -> p.equalsIgnoreCase(path));
    }

    /** What is marked in one picture, marked where it is in the part that was cut out. */
    private static Palette marked(Palette palette, String path, String part, byte[] before, PictureEdit.Fitted fitted) {
        Subject subject = palette.subject(path).orElse(null);
        if (subject == null) {
            return palette;
        }
        PictureSize size = PictureSize.read(before).orElseThrow();
        double[] cut = fitted.cut(size.width(), size.height());
        double[] x = inside(subject.left(), subject.width(), size.width(), cut[0], cut[2]);
        double[] y = inside(subject.top(), subject.height(), size.height(), cut[1], cut[3]);
        boolean lost = x[1] <= 0 || y[1] <= 0;
        return lost
                ? palette.withoutSubject(part)
                : palette.withSubject(
                        new Subject(part, subject.name(), share(x[0]), share(y[0]), share(x[1]), share(y[1])));
    }

    /** Where a stretch is in a part that was cut out: start and size, in hundredths of the part. */
    private static double[] inside(BigDecimal start, BigDecimal size, int whole, double cutFrom, double cutSize) {
        double a = Math.max(0, start.doubleValue() / 100 * whole - cutFrom);
        double b = Math.min(cutSize, start.add(size).doubleValue() / 100 * whole - cutFrom);
        return new double[] {a / cutSize * 100, (b - a) / cutSize * 100};
    }

    private static BigDecimal share(double hundredths) {
        return BigDecimal.valueOf(hundredths).setScale(2, RoundingMode.DOWN).stripTrailingZeros();
    }

    /**
     * Another picture in its place, under its name.
     *
     * @throws BadInputException if the bytes are no picture of the format that the name tells
     */
    public static Change replaced(Theme theme, String path, String name, byte[] bytes) {
        known(theme, path);
        String wanted = format(path);
        if (!format(name).equals(wanted)) {
            throw new BadInputException(
                    "“" + name + "” is not a " + wanted + " file, and " + path + " is one.",
                    "Save it as " + wanted + " first, so that every address still fits.");
        }
        PictureSize size = PictureFile.picture(name, bytes);
        return withoutCopies(
                theme,
                path,
                Change.of("Replaced " + path
                                + (size.width() > 0
                                        ? " by a picture of " + size.width() + " by " + size.height() + " px"
                                        : ""))
                        .withFile(path, bytes));
    }

    /**
     * A new picture beside those that are there.
     *
     * @throws BadInputException if there is a file of that name, or the bytes are no picture
     */
    public static Change added(Theme theme, String name, byte[] bytes) {
        String file = named(name);
        String folder = theme.pictures().stream()
                .map(p -> p.substring(0, p.lastIndexOf('/') + 1))
                .findFirst()
                .orElse("img/");
        String path = folder + file;
        checkFree(theme, path);
        PictureFile.picture(name, bytes);
        checkRoom(theme, bytes);
        return Change.of("Added the picture " + path).withFile(path, bytes);
    }

    private static void checkFree(Theme theme, String path) {
        if (theme.files().paths().stream().anyMatch(p -> p.equalsIgnoreCase(path))) {
            throw new BadInputException(
                    "There is a file " + path + " already.", "Replace that one, or name this one otherwise.");
        }
        if (theme.palette().moved().containsKey(path)) {
            throw new BadInputException(
                    theme.palette().moved().get(path) + " was called " + path
                            + " before, and owners may have chosen it by that name.",
                    "Choose another name.");
        }
    }

    private static void checkRoom(Theme theme, byte[] bytes) {
        if (theme.files().paths().size() >= Limits.FILES) {
            throw new BadInputException(
                    "The theme holds " + Limits.FILES + " files, as many as a theme may have.",
                    "Remove one that nothing uses first.");
        }
        if (theme.files().paths().stream().mapToLong(theme.files()::size).sum() + bytes.length > Limits.ALL_BYTES) {
            throw new BadInputException(
                    "With this picture the theme would hold more than " + Limits.ALL_BYTES / 1_000_000 + " MB.",
                    "Make pictures lighter, or remove what nothing uses.");
        }
    }

    /** The name of a file that somebody brings. @throws BadInputException if no picture of a page can have it */
    private static String named(String name) {
        String file = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1)
                .strip();
        if (!PictureKind.FORMATS.contains(format(file)) || !file.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,99}")) {
            throw new BadInputException(
                    "“" + (file.length() > 60 ? file.substring(0, 60) + "…" : file)
                            + "” is no name of a picture for a page.",
                    "Name it with letters, digits and hyphens, and the ending of its format: "
                            + String.join(", ", PictureKind.FORMATS) + ".");
        }
        return file;
    }

    /**
     * Brings a picture that the theme names and does not hold. It comes where the address says, if it is of the format that the
     * address tells; else it comes beside the others, and every address that named the missing one names it.
     *
     * @param key of an {@link AbsentPicture}
     * @param name of the file that is brought
     * @throws BadInputException if the picture is not missing any more, or the file cannot be used
     */
    public static Change brought(Theme theme, String key, String name, byte[] bytes) {
        AbsentPicture absent = AbsentPicture.of(theme).stream()
                .filter(a -> a.key().equals(key))
                .findFirst()
                .orElseThrow(
                        () -> new BadInputException("“" + key + "” is not missing any more.", "Load the page again."));
        String file = named(name);
        boolean fits = !absent.path().isEmpty()
                && format(absent.path()).equals(format(file))
                && absent.path().length() <= 240
                && absent.path().matches(SAFE);
        if (fits) {
            PictureFile.picture(name, bytes);
            checkFree(theme, absent.path());
            checkRoom(theme, bytes);
            return Change.of("Brought the missing picture " + absent.path()).withFile(absent.path(), bytes);
        }
        Change added = added(theme, file, bytes);
        String path = added.files(theme).keySet().iterator().next();
        List<Address> placed =
                absent.addresses().stream().filter(Address::isPlaced).toList();
        return pointed(
                Change.of("Brought " + path + " for " + (absent.isOnAnotherHost() ? "one on another host" : key)
                                + ", in " + placed.size() + (placed.size() == 1 ? " place" : " places"))
                        .withFile(path, bytes),
                placed,
                path);
    }

    /** Folders and names that need no escapes in an address. */
    private static final String SAFE = "([\\p{L}\\p{N}][\\p{L}\\p{N} ._-]*/)*[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]*";

    private static Change pointed(Change change, List<Address> addresses, String path) {
        Change now = change;
        for (Address a : addresses) {
            now = now.with(a.file(), a.corrected(Paths.address(Paths.relative(a.file(), path)) + behind(a.url())));
        }
        return now;
    }

    /** Which part of an SVG, say; a version of another file means nothing here. */
    private static String behind(String url) {
        return Address.isOnAnotherHost(url) || url.indexOf('#') < 0 ? "" : url.substring(url.indexOf('#'));
    }

    /**
     * Gives a picture another name, in its folder, in every stylesheet and page that names it and in the palette. What owners chose by
     * the name it had goes on counting.
     *
     * @param to the name, with the same ending
     * @throws BadInputException if the name cannot be, is taken, or an address that names it cannot be changed
     */
    public static Change renamed(Theme theme, String path, String to) {
        byte[] bytes = known(theme, path);
        String file = named(to);
        if (!format(file).equals(format(path))) {
            throw new BadInputException(
                    "“" + file + "” has another ending than " + path + ".",
                    "A name does not change the format: keep ." + Paths.ending(path) + ".");
        }
        String after = path.substring(0, path.lastIndexOf('/') + 1) + file;
        if (after.equals(path)) {
            throw new BadInputException("That is the name it has.", "Write another one.");
        }
        Change change = moved(theme, path, after, "Renamed " + path + " to " + after, bytes);
        for (Map.Entry<Integer, String> copy : theme.media().copies(path).entrySet()) {
            change = change.withoutFile(copy.getValue())
                    .withFile(Copies.path(after, copy.getKey()), theme.files().read(copy.getValue()));
        }
        // The palette is checked where the picture is there under its new name.
        return change.withPalette(change.applied(theme), theme.palette().withPictureMoved(path, after));
    }

    /**
     * The same picture as WebP, with the ending of its name changed wherever it is named. What owners chose by the name it had goes on
     * counting.
     *
     * @param width in pixels at most
     * @param quality 30 to 95
     * @throws BadInputException if it does not get lighter, is WebP already, a setting that has it asks for other formats, or an
     *     address that names it cannot be changed
     */
    public static Change asWebp(Theme theme, String path, int width, int quality) {
        byte[] before = known(theme, path);
        if (format(path).equals("webp")) {
            throw new BadInputException(path + " is WebP already.", "Make it lighter in its own format.");
        }
        byte[] light = Lighter.asWebp(path, before, width, quality);
        if (light.length >= before.length) {
            throw new BadInputException(
                    path + " does not get lighter as WebP: " + light.length + " bytes instead of " + before.length
                            + ".",
                    "Leave it as it is, or choose a smaller width or a lower quality.");
        }
        String after = path.substring(0, path.lastIndexOf('.')) + ".webp";
        Change change = moved(
                theme,
                path,
                after,
                "Made " + path + " a WebP: " + Math.round(light.length / 1000.0) + " kB instead of "
                        + Math.round(before.length / 1000.0) + " kB",
                light);
        change = withoutCopies(theme, path, change);
        return change.withPalette(change.applied(theme), theme.palette().withPictureMoved(path, after));
    }

    /** Another path for a picture, in every stylesheet and page that names it. */
    private static Change moved(Theme theme, String path, String after, String note, byte[] bytes) {
        if (!after.equalsIgnoreCase(path)
                && !path.equals(theme.palette().moved().get(after))) {
            checkFree(theme, after);
        }
        List<Address> addresses = Addresses.of(theme).stream()
                .filter(a ->
                        Paths.resolve(a.file(), a.url()).filter(path::equals).isPresent())
                .toList();
        addresses.stream().filter(a -> !a.isPlaced()).findFirst().ifPresent(a -> {
            throw new BadInputException(
                    a.file() + ", line " + a.line() + " names " + path
                            + " in an attribute with character references, which are not changed here.",
                    "Write that address without &…; first.");
        });
        String name = path.substring(path.lastIndexOf('/') + 1);
        String scripts = theme.files().paths().stream()
                .filter(f -> SCRIPTS.contains(Paths.ending(f))
                        && !f.equals(Palette.FILE)
                        && theme.files().size(f) < Limits.FILE)
                .filter(f -> new String(theme.files().read(f), StandardCharsets.UTF_8).contains(name))
                .collect(Collectors.joining(", "));
        return pointed(
                Change.of(note + ", in " + addresses.size()
                                + (addresses.size() == 1 ? " place" : " places")
                                + (scripts.isEmpty()
                                        ? ""
                                        : "; " + scripts + " says " + name + " as well and was not changed"))
                        .withoutFile(path)
                        .withFile(after, bytes),
                addresses,
                after);
    }

    /** Files that may name a picture in a way that nobody but their program knows. */
    private static final Set<String> SCRIPTS = Set.of("js", "mjs", "json", "webmanifest", "scss", "less");

    /**
     * Without a picture that nothing uses.
     *
     * @throws BadInputException if something does, with what
     */
    public static Change removed(Theme theme, String path) {
        known(theme, path);
        List<String> uses = uses(theme).get(path);
        if (!uses.isEmpty()) {
            throw new BadInputException(
                    path + " is used: " + String.join("; ", uses.subList(0, Math.min(3, uses.size())))
                            + (uses.size() > 3 ? " and " + (uses.size() - 3) + " more" : "") + ".",
                    "Put another one in its place, or take it out there first.");
        }
        Change change = withoutCopies(
                theme, path, Change.of("Removed the picture " + path).withoutFile(path));
        return theme.palette().subject(path).isPresent()
                ? change.withPalette(theme, theme.palette().withoutSubject(path))
                : change;
    }

    /** What uses each picture, in words, by its path; nothing for one that no stylesheet, page, setting and scheme names. */
    public static Map<String, List<String>> uses(Theme theme) {
        Map<String, List<String>> all = new LinkedHashMap<>();
        theme.pictures().forEach(p -> all.put(p, new ArrayList<>()));
        for (Address a : Addresses.of(theme)) {
            Paths.resolve(a.file(), a.url()).map(all::get).ifPresent(uses -> uses.add(a.file() + ", line " + a.line()));
        }
        for (Setting s : theme.palette().settings()) {
            all.forEach((path, uses) -> {
                boolean named = names(s.given().value(), path)
                        || s.bands().values().stream().anyMatch(g -> names(g.value(), path))
                        || names(s.kind().allowed(), path);
                if (named) {
                    uses.add("the setting “" + s.label() + "”");
                }
            });
        }
        for (Scheme s : theme.palette().schemes()) {
            all.forEach((path, uses) -> {
                if (s.values().values().stream().anyMatch(c -> names(c.value(), path))) {
                    uses.add("the scheme “" + s.label() + "”");
                }
            });
        }
        return all;
    }

    private static boolean names(Value value, String path) {
        if (value instanceof Value.Text t) {
            return t.text().equals(path);
        }
        return value instanceof Value.Many m
                ? m.items().stream().anyMatch(v -> names(v, path))
                : value instanceof Value.Parts p && p.parts().values().stream().anyMatch(v -> names(v, path));
    }

    private static byte[] known(Theme theme, String path) {
        if (!theme.pictures().contains(path)) {
            throw new BadInputException(
                    "There is no picture " + path + " in the theme any more.", "Load the page again.");
        }
        return theme.files().read(path);
    }

    private static String format(String path) {
        return Paths.ending(path).equals("jpeg") ? "jpg" : Paths.ending(path);
    }
}
