package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A palette with every kind, band values, every way of following, a condition and a scheme. */
public final class Specimens {
    private Specimens() {}

    public static Value px(double n) {
        return Value.parts("value", Value.of(n), "unit", "px");
    }

    private static Setting setting(String key, String kind, Value.Parts allowed, Value value, Value onPhone) {
        Setting s = Setting.of(key, "Label of " + key, "", "p", Kinds.read(kind, allowed), value);
        return onPhone == null
                ? s
                : s.withBands(Map.of("phone", new Given.Fixed(onPhone))).withPerBand(true);
    }

    private static Setting following(String key, Given.How how) {
        return setting(key, "color", Value.parts(), Value.of("red"), null).withGiven(new Given.Follows("ink", how));
    }

    public static Value background(String color, String picture, int strength) {
        return Value.parts(
                "color",
                color,
                "picture",
                picture,
                "repeat",
                "no-repeat",
                "position",
                "center bottom",
                "size",
                "cover",
                "attachment",
                "scroll",
                "overlay",
                "#000000",
                "strength",
                strength);
    }

    private static Value shadow(double y, String color) {
        return Value.parts("x", px(0), "y", px(y), "blur", px(6), "spread", px(0), "color", color, "inside", false);
    }

    private static Value gradient(String from, String to) {
        return Value.parts(
                "shape",
                "linear",
                "angle",
                90,
                "stops",
                new Value.Many(List.of(Value.parts("color", from, "at", 0), Value.parts("color", to, "at", 100))));
    }

    private static Value spacing(double top, double side) {
        return Value.parts("top", px(top), "right", px(side), "bottom", px(top), "left", px(side));
    }

    public static Palette palette() {
        List<Setting> all = new ArrayList<>();
        all.add(setting("ink", "color", Value.parts(), Value.of("#202020"), Value.of("#303030")));
        all.add(following("ink-copy", new Given.Same()));
        all.add(following("ink-lighter", new Given.Lighter(BigDecimal.valueOf(20))));
        all.add(following("ink-darker", new Given.Darker(BigDecimal.valueOf(5))));
        all.add(following("ink-mixed", new Given.Mixed("#ff0000", BigDecimal.valueOf(50))));
        all.add(following("ink-glass", new Given.Translucent(BigDecimal.valueOf(40))));
        all.add(following("ink-readable", new Given.Readable("#111111", "#ffffff")));
        all.add(setting(
                "ground",
                "color",
                Value.parts("contrast", new Value.Many(List.of(Value.parts("with", "ink", "atLeast", 3)))),
                Value.of("#ffffff"),
                null));
        all.add(setting(
                "hero",
                "background",
                Value.parts("fixed", Value.parts("attachment", "scroll")),
                background("#1f3347", "img/a.png", 40),
                background("#1f3347", "img/b.png", 60)));
        all.add(setting(
                "sky",
                "gradient",
                Value.parts("mostStops", 4),
                gradient("#000000", "#ffffff"),
                gradient("#111111", "#eeeeee")));
        all.add(setting("logo", "picture", Value.parts("none", true), Value.of("img/a.png"), Value.of("img/b.png")));
        all.add(setting(
                "film",
                "video",
                Value.parts("none", true),
                Value.parts("src", "film/a.mp4", "poster", "img/a.png"),
                Value.parts("src", "", "poster", "img/b.png")));
        all.add(setting(
                "height",
                "length",
                Value.parts(
                        "units",
                        new Value.Many(List.of(
                                Value.parts("unit", "vh", "least", 40, "most", 90, "step", 1),
                                Value.parts("unit", "px", "least", 200)))),
                Value.parts("value", 72, "unit", "vh"),
                px(300)));
        all.add(setting(
                "weight", "number", Value.parts("least", 100, "most", 900, "step", 100), Value.of(400), Value.of(600)));
        all.add(setting("shade", "percentage", Value.parts("least", 0, "most", 80), Value.of(38), Value.of(50)));
        all.add(setting(
                "align",
                "choice",
                Value.parts(
                        "options",
                        new Value.Many(List.of(
                                Value.parts("key", "left"),
                                Value.parts("key", "middle", "label", "In the middle", "css", "center")))),
                Value.of("left"),
                Value.of("middle")));
        all.add(setting("banner", "yes-no", Value.parts(), Value.of(true), Value.of(false)));
        all.add(setting(
                "heading",
                "line",
                Value.parts("least", 1, "most", 60),
                Value.of("Cross the mere & back"),
                Value.of("Cross <it>")));
        all.add(setting("intro", "text", Value.parts("rows", 3, "most", 400), Value.of("One\nTwo"), Value.of("Short"))
                .withShown(new Setting.Shown("banner", List.of(Value.of(true)))));
        all.add(setting("target", "link", Value.parts(), Value.of("piers.html#harrow"), Value.of("tel:+100-200")));
        all.add(setting("level", "level", Value.parts("least", 2, "most", 4), Value.of(2), Value.of(3)));
        all.add(setting("room", "spacing", Value.parts(), spacing(8, 16), spacing(4, 8)));
        all.add(setting(
                "edge",
                "border",
                Value.parts("none", true),
                Value.parts("width", px(2), "style", "dashed", "color", "#00ff00"),
                Value.of("none")));
        all.add(setting("lift", "shadow", Value.parts("none", true), shadow(2, "#00000040"), shadow(5, "#ff0000")));
        all.add(setting(
                "cards",
                "items",
                Value.parts(
                        "least",
                        1,
                        "most",
                        4,
                        "parts",
                        new Value.Many(List.of(
                                Value.parts("key", "heading", "label", "Heading", "kind", "line", "default", "New"),
                                Value.parts("key", "picture", "kind", "picture", "allowed", Value.parts("none", true)),
                                Value.parts("key", "shown", "kind", "yes-no", "default", true)))),
                new Value.Many(List.of(
                        Value.parts("heading", "Harrow", "picture", "img/a.png", "shown", true),
                        Value.parts("heading", "Withy", "picture", "", "shown", false))),
                new Value.Many(List.of(Value.parts("heading", "One", "picture", "img/b.png", "shown", true)))));
        Scheme scheme = new Scheme(
                "dusk",
                "Dusk",
                new java.util.TreeMap<>(Map.of(
                        "ink",
                        Chosen.of("#102030"),
                        "height",
                        Chosen.of(px(250)),
                        "banner",
                        new Chosen(null, Map.of("tablet", Value.of(false))))));
        return new Palette("Specimens", Bands.USUAL, List.of(new Place("p", "P")), all, List.of(scheme), List.of());
    }
}
