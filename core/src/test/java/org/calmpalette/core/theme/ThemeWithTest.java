package org.calmpalette.core.theme;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.core.page.Page;
import org.junit.jupiter.api.Test;

/** A theme of which only what differs is read is the theme that is read whole. */
class ThemeWithTest {
    private static String told(Theme t) {
        StringBuilder out = new StringBuilder(t.palette().toString());
        for (Page p : t.pages()) {
            out.append("\n# ").append(p.source().file()).append(p.document().outerHtml());
        }
        List.of(t.sheets(), t.attributes())
                .forEach(all -> all.forEach(s -> out.append("\n- ")
                        .append(s.path())
                        .append(' ')
                        .append(s.offset())
                        .append(s.file().charset())
                        .append(s.sheet().source().text())
                        .append(s.sheet().rules())));
        t.aside().forEach(a -> out.append("\n! ").append(a));
        t.pictures().forEach(p -> out.append("\n* ").append(p).append(t.media().facts(p)));
        return out.toString();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void isReadAsIfItWereNew() {
        List<String> paths = List.of(
                "index.html",
                "a.html",
                "b/c.html",
                "a.css",
                "b.css",
                "b/c.css",
                "palette.json",
                "settings.css",
                "sections/x/section.json",
                "sections/x/section.css",
                "p.svg",
                "n.txt");
        List<String> texts = List.of(
                "<!doctype html><link rel=stylesheet href=a.css><p style='color: red'>1<style>p { margin: 0 }</style>",
                "<!doctype html><meta charset=windows-1252><link rel=stylesheet href=b.css><p style='top: 0'>é",
                "<link rel=stylesheet href=c.css><h1>x",
                "a { color: red }",
                "@import 'c.css'; /* \u00e9 */ b { left: 0 }",
                "{\"format\": \"calm-palette/1\", \"name\": \"N\"}",
                "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='3'/>",
                "\0a\0b\0c\0d\0e\0f");
        Random random = new Random(5);
        TreeMap<String, byte[]> files = new TreeMap<>();
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        int aside = 0;
        int reused = 0;
        for (int i = 0; i < 400; i++) {
            Set<String> touched = new TreeSet<>();
            for (int k = random.nextInt(3); k >= 0; k--) {
                String path = paths.get(random.nextInt(paths.size()));
                touched.add(path);
                String text = path.equals("palette.json") ? texts.get(5) : texts.get(random.nextInt(texts.size()));
                if (random.nextInt(4) == 0) {
                    files.remove(path);
                } else {
                    files.put(
                            path,
                            random.nextInt(3) == 0 ? text.getBytes(Charset.forName("windows-1252")) : bytes(text));
                }
            }
            Theme before = theme;
            theme = theme.with(ThemeFiles.of(files), touched);
            assertThat(told(theme))
                    .isEqualTo(told(
                            Theme.read(ThemeFiles.of(files), theme.palette().name())));
            aside += theme.aside().size();
            for (Page p : theme.pages()) {
                String path = p.source().file();
                boolean known = before.pages().contains(p);
                assertThat(known)
                        .as(path)
                        .isEqualTo(!touched.contains(path)
                                && before.pages().stream()
                                        .anyMatch(b -> b.source().file().equals(path)));
                reused += known ? 1 : 0;
            }
        }
        assertThat(aside).isGreaterThan(50);
        assertThat(reused).isGreaterThan(300);
    }

    /** A page that says another encoding is why a stylesheet that stays is read otherwise. */
    @Test
    void aSheetIsReadAsItsPageIsNow() {
        byte[] css = "/* \u00e9 */ a { color: red }".getBytes(Charset.forName("windows-1252"));
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("a.css", css);
        files.put("index.html", bytes("<link rel=stylesheet href=a.css>"));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        assertThat(theme.sheets().get(0).file().isMalformed()).isTrue();
        files.put("index.html", bytes("<meta charset=windows-1252><link rel=stylesheet href=a.css>"));
        Theme now = theme.with(ThemeFiles.of(files), Set.of("index.html"));
        assertThat(now.sheets().get(0).file().text()).contains("\u00e9");
        assertThat(now.with(ThemeFiles.of(files), Set.of()).sheets().get(0))
                .isSameAs(now.sheets().get(0));
    }
}
