package org.calmpalette.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ThemeZipTest {
    @TempDir
    Path folder;

    private interface Fill {
        void into(ZipArchiveOutputStream zip) throws IOException;
    }

    private Path zip(Fill fill) throws IOException {
        Path path = folder.resolve("t" + System.nanoTime() + ".zip");
        try (OutputStream out = Files.newOutputStream(path);
                ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) {
            fill.into(zip);
        }
        return path;
    }

    private static void put(ZipArchiveOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putArchiveEntry(new ZipArchiveEntry(name));
        zip.write(bytes);
        zip.closeArchiveEntry();
    }

    private static Map<String, byte[]> read(Path path) throws IOException {
        Map<String, byte[]> files = new TreeMap<>();
        ThemeZip.read(path, "theme.zip", files::put, (done, total, at) -> {});
        return files;
    }

    private void refused(Fill fill, String... words) throws IOException {
        Path path = zip(fill);
        assertThatThrownBy(() -> read(path)).isInstanceOfSatisfying(BadInputException.class, e -> {
            assertThat(e.getMessage()).contains(words);
            assertThat(e.mend()).isNotBlank();
        });
    }

    @Test
    void theFolderAroundAThemeAndLitterAreTakenOff() throws IOException {
        Path path = zip(z -> {
            put(z, "my/index.html", new byte[] {1});
            put(z, "my/css\\a.css", new byte[] {2});
            put(z, "__MACOSX/my/._index.html", new byte[] {3});
            put(z, "my/.DS_Store", new byte[] {4});
        });
        assertThat(read(path).keySet()).containsExactly("css/a.css", "index.html");
    }

    @Test
    void pathsThatLeadOutAndLinksAreRefused() throws IOException {
        refused(z -> put(z, "a/../../evil.html", new byte[1]), "a/../../evil.html", "climbs");
        refused(z -> put(z, "..\\evil.html", new byte[1]), "climbs");
        refused(z -> put(z, "/etc/evil.html", new byte[1]), "absolute");
        refused(z -> put(z, "C:\\evil.html", new byte[1]), "absolute");
        refused(
                z -> {
                    ZipArchiveEntry link = new ZipArchiveEntry("index.html");
                    link.setUnixMode(0120777);
                    z.putArchiveEntry(link);
                    z.write("/etc/passwd".getBytes(StandardCharsets.UTF_8));
                    z.closeArchiveEntry();
                },
                "index.html",
                "link");
    }

    @Test
    void tooMuchIsRefused() throws IOException {
        refused(
                z -> {
                    for (int i = 0; i <= ThemeZip.MOST_FILES; i++) {
                        put(z, "f" + i + ".css", new byte[0]);
                    }
                },
                "2000 files");
        refused(z -> put(z, "bomb.css", new byte[20_000_000]), "bomb.css", "bombs");
        byte[] noise = new byte[21_000_000];
        new java.util.Random(1).nextBytes(noise);
        refused(
                z -> {
                    z.setLevel(0);
                    for (int i = 0; i < 5; i++) {
                        put(z, i + ".css", noise);
                    }
                },
                "100 MB");
    }

    @Test
    void whatIsNoThemeIsRefused() throws IOException {
        refused(z -> put(z, "readme.txt", new byte[1]), "no page", "no stylesheet");
        refused(
                z -> {
                    put(z, "a.css", new byte[1]);
                    put(z, "A.css", new byte[1]);
                },
                "A.css",
                "letter case");
        Path whole = zip(z -> put(z, "a.css", "a{}".repeat(4000).getBytes(StandardCharsets.UTF_8)));
        byte[] bytes = Files.readAllBytes(whole);
        Files.write(whole, Arrays.copyOf(bytes, bytes.length / 2));
        assertThatThrownBy(() -> read(whole)).hasMessageContaining("theme.zip").hasMessageContaining("cut off");
        // The flag of an encrypted entry, bit 0 of the general purpose flags: APPNOTE 6.3.10, section 4.4.4.
        Path encrypted = zip(z -> put(z, "a.css", new byte[] {1}));
        byte[] flagged = Files.readAllBytes(encrypted);
        flagged[6] |= 1;
        for (int i = 0; i < flagged.length - 4; i++) {
            if (flagged[i] == 'P' && flagged[i + 1] == 'K' && flagged[i + 2] == 1 && flagged[i + 3] == 2) {
                flagged[i + 8] |= 1;
            }
        }
        Files.write(encrypted, flagged);
        assertThatThrownBy(() -> read(encrypted)).hasMessageContaining("a.css").hasMessageContaining("encrypted");
    }

    @Test
    void namesThatNotEverySystemKeepsAreRefused() throws IOException {
        for (String name :
                new String[] {"con.html", "css/AUX", "a./b.css", "a /b.css", "what?.html", "a:b.css", "COM1.css"}) {
            refused(
                    z -> {
                        put(z, "index.html", new byte[1]);
                        put(z, name, new byte[1]);
                    },
                    name.contains(":") ? "a:b.css" : name);
        }
        refused(
                z -> {
                    put(z, "b", new byte[1]);
                    put(z, "b/c.css", new byte[1]);
                },
                "“b” is a file, and the folder of “b/c.css”");
        refused(
                z -> {
                    put(z, "caf\u00e9.css", new byte[1]);
                    put(z, "cafe\u0301.css", new byte[1]);
                },
                "accent");
        Path fine = zip(z -> {
            put(z, "console.html", new byte[1]);
            put(z, "100%/a;b#c.css", new byte[1]);
            put(z, ".well/x..y.css", new byte[1]);
        });
        assertThat(read(fine).keySet()).containsExactly(".well/x..y.css", "100%/a;b#c.css", "console.html");
    }

    @Test
    void whatCameOutOtherwiseThanItWentInIsRefused() throws IOException {
        Path whole = zip(z -> {
            z.setLevel(0);
            put(z, "a.css", "p{color:red}".getBytes(StandardCharsets.UTF_8));
        });
        byte[] bytes = Files.readAllBytes(whole);
        int at = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("color");
        bytes[at] = 'C';
        Files.write(whole, bytes);
        assertThatThrownBy(() -> read(whole))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("a.css")
                .hasMessageContaining("check sum");
    }

    @Test
    void waysOfPackingThatAreNotHereAreRefused() throws IOException {
        for (int method : new int[] {14, 93, 95}) {
            Path odd = zip(z -> put(z, "a.css", "p{}".getBytes(StandardCharsets.UTF_8)));
            byte[] bytes = Files.readAllBytes(odd);
            for (int i = 0; i < bytes.length - 12; i++) {
                // The method stands in the entry's own header and in the list: APPNOTE 6.3.10, sections 4.3.7 and
                // 4.3.12.
                if (bytes[i] == 'P' && bytes[i + 1] == 'K' && (bytes[i + 2] == 1 || bytes[i + 2] == 3)) {
                    bytes[i + (bytes[i + 2] == 1 ? 10 : 8)] = (byte) method;
                }
            }
            Files.write(odd, bytes);
            assertThatThrownBy(() -> read(odd))
                    .isInstanceOf(BadInputException.class)
                    .hasMessageContaining("a.css")
                    .hasMessageContaining("packed in a way");
        }
    }

    @Test
    void aMillionFoldersAreRefusedBeforeTheyAreListed() throws IOException {
        // The list alone, as the record at the end tells it: nobody has to pack a million folders to see that it is not
        // read.
        Path huge = folder.resolve("huge.zip");
        java.nio.ByteBuffer end = java.nio.ByteBuffer.allocate(22).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        end.putInt(0x06054b50)
                .putInt(0)
                .putShort((short) 60_000)
                .putShort((short) 60_000)
                .putInt(5_000_000)
                .putInt(0)
                .putShort((short) 0);
        try (OutputStream out = Files.newOutputStream(huge)) {
            out.write(new byte[5_000_000]);
            out.write(end.array());
        }
        assertThatThrownBy(() -> read(huge))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("more files and folders");
    }
}
