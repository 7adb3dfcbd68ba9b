package org.calmpalette.app.promises;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Palette;
import org.springframework.web.util.UriUtils;

/** What is listed of promises: the broken one by one, what cannot be told by its reason, what is kept on demand. */
record PromiseRows(List<Group> groups, int left) {
    /** Rows that are shown of one promise. */
    private static final int MOST = 150;

    private static final int LONGEST = 40;

    /** A promise with what is listed of it. */
    public record Group(String label, String holds, long broken, long unsure, long kept, List<Row> rows) {}

    /**
     * @param sign as the drawing of the state is called
     * @param state in a word
     * @param name what the subject is called
     * @param where it stands, or how many there are
     * @param says the number, or the reason
     * @param when window width and state
     */
    public record Row(
            String id,
            String sign,
            String state,
            String name,
            String where,
            String says,
            String when,
            String words,
            String address,
            String card,
            String mends) {}

    static PromiseRows of(long theme, List<Answer> answers, Palette palette, boolean withKept) {
        Bands bands = palette.bands();
        List<Group> groups = new ArrayList<>();
        int left = 0;
        for (Promise p : Promise.values()) {
            List<Answer> of = answers.stream().filter(a -> a.promise() == p).toList();
            List<Row> rows = new ArrayList<>();
            Map<String, List<Answer>> unsure = new LinkedHashMap<>();
            for (Answer a : of) {
                if (a.isWaived()) {
                    unsure.computeIfAbsent(a.id(), k -> new ArrayList<>()).add(a);
                    continue;
                }
                switch (a.state()) {
                    case BROKEN -> rows.add(row(theme, a, bands, where(a)));
                    case UNPROVEN ->
                        unsure.computeIfAbsent(reason(a), k -> new ArrayList<>())
                                .add(a);
                    default -> {
                        if (withKept) {
                            unsure.computeIfAbsent(a.id(), k -> new ArrayList<>())
                                    .add(a);
                        }
                    }
                }
            }
            unsure.values()
                    .forEach(all -> rows.add(row(
                            theme,
                            all.get(0),
                            bands,
                            all.size() == 1
                                    ? where(all.get(0))
                                    : String.format(Locale.ROOT, "and %,d more, %s", all.size() - 1, pages(all)))));
            left += Math.max(0, rows.size() - MOST);
            // Of the theme as a whole there is no part to show: the reason stands beside the promise.
            boolean whole = of.size() == 1
                    && of.get(0).state() == Answer.State.UNPROVEN
                    && of.get(0).selector().equals(Answer.THEME);
            if (whole) {
                rows.clear();
            }
            if (!of.isEmpty()) {
                add(
                        groups,
                        new Group(
                                p.label(),
                                whole ? "Cannot be told: " + of.get(0).why() + "." : p.holds(palette.thresholds()),
                                count(of, Answer.State.BROKEN),
                                count(of, Answer.State.UNPROVEN),
                                count(of, Answer.State.KEPT),
                                List.copyOf(rows.subList(0, Math.min(MOST, rows.size())))),
                        whole);
            }
        }
        return new PromiseRows(groups, left);
    }

    /** One that cannot be told for the reason of another stands beside it: a reason is read once. */
    private static void add(List<Group> groups, Group next, boolean whole) {
        for (int i = 0; whole && i < groups.size(); i++) {
            Group known = groups.get(i);
            if (known.rows().isEmpty() && known.holds().equals(next.holds())) {
                groups.set(
                        i,
                        new Group(
                                known.label() + ", " + next.label(),
                                known.holds(),
                                known.broken(),
                                known.unsure() + next.unsure(),
                                known.kept(),
                                List.of()));
                return;
            }
        }
        groups.add(next);
    }

    private static long count(List<Answer> all, Answer.State state) {
        return all.stream().filter(a -> a.state() == state && !a.isWaived()).count();
    }

    /** A reason without its numbers, which differ from text to text. */
    static String reason(Answer a) {
        return a.why().replaceFirst("; as made it has .*", "").replaceAll("\\d+(\\.\\d+)?", "#");
    }

    static boolean isSameReason(Answer a, Answer b) {
        return reason(a).equals(reason(b));
    }

    private static String pages(List<Answer> all) {
        Set<String> pages = new LinkedHashSet<>();
        all.forEach(a -> pages.addAll(a.pages()));
        return pages.isEmpty()
                ? ""
                : pages.size() == 1 ? "on " + pages.iterator().next() : "on " + pages.size() + " pages";
    }

    static String where(Answer a) {
        if (a.page().isEmpty()) {
            return a.selector();
        }
        // The part itself; what is around it stands on the card.
        String part = a.selector().replaceFirst("^.*> ", "").replaceAll(":nth-of-type\\(\\d+\\)", "");
        return (a.pages().size() > 1 ? a.pages().size() + " pages" : a.page()) + (a.element() < 0 ? "" : ", " + part);
    }

    static Row row(long theme, Answer a, Bands bands, String where) {
        String id = UriUtils.encodeQueryParam(a.id(), StandardCharsets.UTF_8);
        return new Row(
                a.id(),
                sign(a),
                word(a),
                name(a),
                where,
                says(a),
                when(a, bands),
                String.join(" ", a.words(), a.selector(), a.page(), a.promise().label(), word(a), a.why()),
                "/themes/" + theme + "/promises?key=" + id,
                "/themes/" + theme + "/promises/card?key=" + id,
                "/themes/" + theme + "/promises/mends?key=" + id);
    }

    static String name(Answer a) {
        String name = a.words().isEmpty() ? a.selector() : a.words();
        return name.length() > LONGEST ? name.substring(0, LONGEST).strip() + "…" : name;
    }

    static String sign(Answer a) {
        if (a.isWaived()) {
            return "unknown";
        }
        return switch (a.state()) {
            case BROKEN -> "breaks";
            case UNPROVEN -> "unknown";
            case KEPT -> "kept";
        };
    }

    static String word(Answer a) {
        if (a.isWaived()) {
            return "not promised";
        }
        return switch (a.state()) {
            case BROKEN -> a.values().isEmpty() ? "broken as made" : "a choice breaks it";
            case UNPROVEN -> "cannot tell";
            case KEPT -> "kept";
        };
    }

    static String says(Answer a) {
        if (a.isWaived() && !a.waiver().isEmpty()) {
            return a.waiver();
        }
        if (!a.isMeasured()) {
            return a.why();
        }
        return switch (a.state()) {
            case BROKEN -> a.ratio() + ", needs " + Answer.plain(a.needed());
            case UNPROVEN -> a.why();
            case KEPT ->
                "at least " + (a.isDistance() ? Answer.distance(a.worst()) + " apart" : number(a.worst()) + " to 1");
        };
    }

    /** Two digits, never more than it is. */
    static String number(double ratio) {
        return String.format(Locale.ROOT, "%.2f", Math.floor(ratio * 100) / 100);
    }

    static String when(Answer a, Bands bands) {
        Band band = a.width() == 0 ? null : bands.at(a.width());
        String state =
                switch (a.pseudoClass()) {
                    case "hover" -> "under the pointer";
                    case "focus" -> "focused";
                    case "active" -> "pressed";
                    case "visited" -> "visited";
                    case "placeholder-shown" -> "before anything is written";
                    case "" -> "";
                    default -> "with " + a.pseudoClass() + " by a script";
                };
        String what = a.what().label();
        return band == null
                ? ""
                : band.label()
                        + (what.isEmpty() ? "" : ", " + what)
                        + (state.isEmpty() ? "" : ", " + state)
                        + (a.dark() ? ", dark scheme" : "");
    }
}
