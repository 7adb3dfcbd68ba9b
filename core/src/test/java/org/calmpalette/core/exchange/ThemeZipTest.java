package org.calmpalette.core.exchange;

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
    try (OutputStream out = Files.newOutputStream(path); ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) {
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
    ThemeZip.read(path, "theme.zip", files::put, (done, total, at) -> { });
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
    refused(z -> {
      ZipArchiveEntry link = new ZipArchiveEntry("index.html");
      link.setUnixMode(0120777);
      z.putArchiveEntry(link);
      z.write("/etc/passwd".getBytes(StandardCharsets.UTF_8));
      z.closeArchiveEntry();
    }, "index.html", "link");
  }

  @Test
  void tooMuchIsRefused() throws IOException {
    refused(z -> {
      for (int i = 0; i <= ThemeZip.MOST_FILES; i++) {
        put(z, "f" + i + ".css", new byte[0]);
      }
    }, "2000 files");
    refused(z -> put(z, "bomb.css", new byte[20_000_000]), "bomb.css", "bombs");
    byte[] noise = new byte[21_000_000];
    new java.util.Random(1).nextBytes(noise);
    refused(z -> {
      z.setLevel(1);
      for (int i = 0; i < 5; i++) {
        put(z, i + ".css", noise);
      }
    }, "100 MB");
  }

  @Test
  void whatIsNoThemeIsRefused() throws IOException {
    refused(z -> put(z, "readme.txt", new byte[1]), "no page", "no stylesheet");
    refused(z -> {
      put(z, "a.css", new byte[1]);
      put(z, "A.css", new byte[1]);
    }, "A.css", "letter case");
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
}
