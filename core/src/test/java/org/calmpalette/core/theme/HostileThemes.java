package org.calmpalette.core.theme;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Themes that mean harm, or are only huge: each is made to be expensive for one part of the work. */
public final class HostileThemes {
    private static final String PAGE =
            "<!doctype html><title>T</title><link rel=stylesheet href=a.css><body><h1 class=a>One</h1><p class=b>Two <a href=#x>three</a></p>";

    private HostileThemes() {}

    /** All of them by name, each made when it is asked for. */
    public static Map<String, java.util.function.Supplier<SortedMap<String, byte[]>>> all() {
        Map<String, java.util.function.Supplier<SortedMap<String, byte[]>>> all = new LinkedHashMap<>();
        all.put("8 MB stylesheet on one line", () -> sheet(".a{color:#123456;margin:0 1px 2px 3px}".repeat(210_000)));
        all.put("8 MB list of selectors", () -> sheet(times(700_000, i -> ".c" + i + ",") + ".a{color:red}"));
        all.put("140,000 rules for one class", () -> sheet(".a{color:red}".repeat(140_000)));
        all.put("29,000 rules for one class", () -> sheet(".a{color:red}\n".repeat(29_000)));
        all.put(
                "29,000 rules for one class of 5,000 elements",
                () -> theme(
                        "a.css",
                        ".a{color:red}\n".repeat(29_000),
                        "index.html",
                        PAGE + "<p class=a>x</p>".repeat(5_000)));
        all.put(
                "20 MB page",
                () -> theme("a.css", ".a{color:red}", "index.html", PAGE + "<p class=a>word</p>".repeat(1_100_000)));
        all.put(
                "page of 3 MB in small elements",
                () -> theme("a.css", ".a{color:red}", "index.html", PAGE + "<p>".repeat(990_000)));
        all.put(
                "page 50,000 elements deep",
                () -> theme("a.css", ".a{color:red}", "index.html", PAGE + "<div class=a>".repeat(50_000) + "x"));
        all.put(
                "19,000 elements under 2,000 rules",
                () -> theme(
                        "a.css",
                        times(2_000, i -> ".a .b" + i + " *{color:#" + hex(i) + "}\n"),
                        "index.html",
                        PAGE + "<div class='a b7'><i>x</i></div>".repeat(9_400)));
        all.put(
                "chain of 5,000 custom properties",
                () -> sheet(":root{--v0:red;" + times(5_000, i -> "--v" + (i + 1) + ":var(--v" + i + ");")
                        + "}.a{color:var(--v5000)}"));
        all.put(
                "circle of 5,000 custom properties",
                () -> sheet(":root{" + times(5_000, i -> "--v" + i + ":var(--v" + (i + 1) % 5_000 + ");")
                        + "}.a{color:var(--v7)}"));
        all.put(
                "var() nested 10,000 deep",
                () -> sheet(".a{color:" + "var(--x,".repeat(10_000) + "red" + ")".repeat(10_000) + "}"));
        all.put(
                "calc() grown through 2,000 custom properties",
                () -> sheet(":root{--v0:1px;" + times(2_000, i -> "--v" + (i + 1) + ":calc(var(--v" + i + ") + 1px);")
                        + "}.a{margin:var(--v2000)}"));
        all.put(
                "custom properties that double themselves",
                () -> theme(
                        "a.css",
                        "*{--v0:red red;" + times(40, i -> "--v" + (i + 1) + ":var(--v" + i + ") var(--v" + i + ");")
                                + "color:var(--v40)}",
                        "index.html",
                        PAGE + "<p class=a>x</p>".repeat(2_000)));
        all.put(
                "brackets 100,000 deep",
                () -> sheet(".a{margin:" + "(".repeat(100_000) + ")".repeat(100_000) + "}@media " + "(".repeat(50_000)
                        + "{.a{color:red}}" + ":is(".repeat(20_000) + "p" + ")".repeat(20_000) + "{color:red}"));
        all.put(
                "numbers beyond all bounds",
                () -> sheet(
                        ".a{margin:1e400px;padding:calc(1px/0);opacity:calc(0/0);font-size:calc(infinity*1px);line-height:calc(infinity);"
                                + "background:linear-gradient(calc(infinity*1deg),red calc(1px/0),blue 1e999px) calc(infinity*1px) 1e400%/calc(infinity*1px);font-weight:calc(infinity)}"
                                + ".b{margin:-1e400px calc(NaN*1px) round(5px,0px) mod(5px,0px);color:rgb(1e400 calc(0/0) calc(infinity)/calc(0/0));border:1e99em solid hsl(calc(infinity) 50% 50%);"
                                + "outline-color:oklch(calc(infinity) 1e400 calc(0/0));letter-spacing:1e39px;z-index:1e40}a{color:oklab(0.5 1e400 calc(-infinity));top:calc(50% + infinity*1px)}"));
        all.put("10,000 colours", () -> sheet(times(10_000, i -> ".c" + i + "{color:#" + hex(i * 1_613) + "}\n")));
        all.put(
                "3,000 classes, all used",
                () -> theme(
                        "a.css",
                        times(3_000, i -> ".c" + i + "{margin:" + i % 90 + "px;color:#" + hex(i * 5_003) + "}\n"),
                        "index.html",
                        PAGE + times(3_000, i -> "<p class=c" + i + ">x</p>")));
        all.put(
                "5,000 media queries",
                () -> sheet(times(
                        5_000,
                        i -> "@media (min-width:" + i + "px) and (max-width:" + (i + 900) + "px){.a{margin:" + i
                                + "px}}\n")));
        all.put(
                "5,000 custom properties, all read",
                () -> sheet(":root{" + times(5_000, i -> "--c" + i + ":#" + hex(i * 3_001) + ";") + "}"
                        + times(5_000, i -> ".c" + i + "{color:var(--c" + i + ")}\n")));
        all.put("selectors that repeat what is around them", () -> sheet(nested(12)));
        all.put("rules nested 5,000 deep", () -> sheet("a{".repeat(5_000) + "color:red" + "}".repeat(5_000)));
        all.put(
                ":has() and :nth-child() among 15,000 siblings",
                () -> theme(
                        "a.css",
                        "p:nth-child(3n of .a){color:red}:has(~ .z){color:blue}p:nth-last-child(7n+1){margin:0}body:has(.nothing .here) p{color:red}",
                        "index.html",
                        PAGE + "<p class=a>x</p>".repeat(15_000)));
        all.put("sheets that all import each other", () -> {
            TreeMap<String, byte[]> files =
                    theme("a.css", times(12, i -> "@import 's" + i + ".css';"), "index.html", PAGE);
            IntStream.range(0, 12)
                    .forEach(n -> files.put(
                            "s" + n + ".css", utf8(times(12, i -> "@import 's" + i + ".css';") + ".a{color:red}")));
            return files;
        });
        all.put("1,900 pages", () -> {
            TreeMap<String, byte[]> files = theme("a.css", ".a{color:red}.b{margin:3px}", "index.html", PAGE);
            IntStream.range(0, 1_900)
                    .forEach(n -> files.put("p" + n + ".html", utf8(PAGE + "<ul>" + "<li>x".repeat(25) + "</ul>")));
            return files;
        });
        all.put(
                "palette.json with 150,000 keys that nobody knows",
                () -> theme(
                        "a.css",
                        ".a{color:red}",
                        "index.html",
                        PAGE,
                        "palette.json",
                        "{\"name\":\"T\"," + times(150_000, i -> "\"k" + i + "\":1,") + "\"settings\":[]}"));
        all.put("pages in UTF-16 and UTF-32 without a mark, ISO-2022-JP", () -> {
            TreeMap<String, byte[]> files = theme("a.css", ".a{color:red}", "index.html", PAGE);
            files.put("le.html", PAGE.getBytes(StandardCharsets.UTF_16LE));
            files.put("utf32.html", PAGE.getBytes(Charset.forName("UTF-32LE")));
            files.put(
                    "jis.html",
                    (PAGE.replace("<title>", "<meta charset=iso-2022-jp><title>") + "日本")
                            .getBytes(Charset.forName("ISO-2022-JP")));
            files.put("named32.html", utf8(PAGE.replace("<title>", "<meta charset=utf-32><title>")));
            files.put("le.css", ".a{color:blue}".repeat(3).getBytes(StandardCharsets.UTF_16LE));
            return files;
        });
        all.put(
                "one rule of 60,000 declarations",
                () -> sheet(".a{" + times(60_000, i -> "margin-left:" + i + "px;") + "}"));
        all.put("a comment that never ends", () -> sheet(".a{color:red}/*" + "x ".repeat(900_000)));
        all.put(
                "one selector of 100,000 classes",
                () -> sheet(times(100_000, i -> ".c" + i % 9) + "{color:red}" + ".a ".repeat(50_000) + "{color:red}"));
        all.put(
                "one rule of 5,000 gradients",
                () -> theme(
                        "a.css",
                        ".a{background:" + "linear-gradient(#123,#456),".repeat(5_000) + "#fff;height:90px}",
                        "index.html",
                        PAGE + "<p class=a>x</p>".repeat(50)));
        all.put(
                "15,000 paragraphs in the main part",
                () -> theme(
                        "a.css",
                        ".a{color:red}",
                        "index.html",
                        "<!doctype html><title>T</title><link rel=stylesheet href=a.css><body><h1>One</h1><main>"
                                + "<p>x</p>".repeat(15_000) + "</main>"));
        return all;
    }

    private static String nested(int deep) {
        StringBuilder css = new StringBuilder();
        for (int i = 0; i < deep; i++) {
            css.append(i == 0 ? ".a0,.b0,.c0{" : "& & , & .c{");
        }
        return css.append("color:red").append("}".repeat(deep)).toString();
    }

    private static String hex(int n) {
        return String.format("%06x", n & 0xffffff);
    }

    private static String times(int n, IntFunction<String> each) {
        return IntStream.range(0, n).mapToObj(each).collect(Collectors.joining());
    }

    private static TreeMap<String, byte[]> sheet(String css) {
        return theme("a.css", css, "index.html", PAGE);
    }

    private static TreeMap<String, byte[]> theme(String... pathsAndTexts) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            files.put(pathsAndTexts[i], utf8(pathsAndTexts[i + 1]));
        }
        return files;
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
