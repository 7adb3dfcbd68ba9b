package org.calmpalette.app.promises;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Perceivable;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.theme.Theme;

/** What a theme promises, on paper: each promise with what breaks it, what is open, what is waived, and how narrowly the rest is kept. */
record Report(List<Section> sections, long broken, long open, long kept, long waived) {
    /** What is closest to breaking is what one wants to know of what is kept. */
    private static final int CLOSEST = 3;

    private static final int MOST = 60;

    /**
     * @param margin of what is kept, the closest first
     * @param more that are broken and not on the paper
     * @param seen whether there are colours to show
     */
    public record Section(
            String label,
            String holds,
            long kept,
            List<Line> broken,
            List<Reason> open,
            List<Line> waived,
            List<Line> closest,
            int more,
            boolean seen) {}

    /** Why some are not decided, and how many. */
    public record Reason(String why, long count, String example) {}

    /**
     * @param text colour of the letters as they are seen, for a small picture; empty where it is not known
     * @param what of it has to be seen
     * @param ground what is behind them
     * @param choices that lead there, in words
     */
    public record Line(
            String name,
            String where,
            String says,
            String when,
            Perceivable what,
            String text,
            String ground,
            String choices) {
        /** Whether words are meant; else a line or a sign in that colour stands for it. */
        public boolean isWords() {
            return what != Perceivable.EDGE && what != Perceivable.OUTLINE && what != Perceivable.ICON;
        }

        /** First letters for the picture. */
        public String sample() {
            return name.length() > 12 ? name.substring(0, 12).strip() + "…" : name;
        }
    }

    static Report of(Theme theme, List<Answer> answers) {
        List<Section> sections = new ArrayList<>();
        for (Promise p : Promise.values()) {
            List<Answer> of = answers.stream().filter(a -> a.promise() == p).toList();
            if (of.isEmpty()) {
                continue;
            }
            List<Answer> broken = of.stream().filter(Answer::isBroken).toList();
            List<Answer> kept = of.stream()
                    .filter(a -> a.state() == Answer.State.KEPT && !a.isWaived())
                    .toList();
            Map<String, List<Answer>> open = of.stream()
                    .filter(a -> a.state() == Answer.State.UNPROVEN && !a.isWaived())
                    .collect(Collectors.groupingBy(
                            PromiseRows::reason, java.util.LinkedHashMap::new, Collectors.toList()));
            sections.add(new Section(
                    p.label(),
                    p.holds(theme.palette().thresholds()),
                    kept.size(),
                    broken.stream().limit(MOST).map(a -> line(theme, a)).toList(),
                    open.values().stream()
                            .map(all -> new Reason(
                                    all.get(0).why(),
                                    all.size(),
                                    all.get(0).selector().equals(Answer.THEME) ? "" : PromiseRows.name(all.get(0))))
                            .toList(),
                    of.stream()
                            .filter(Answer::isWaived)
                            .map(a -> line(theme, a))
                            .toList(),
                    kept.stream()
                            .filter(Answer::isMeasured)
                            .sorted(Comparator.comparingDouble(a -> a.worst() / a.needed()))
                            .limit(CLOSEST)
                            .map(a -> line(theme, a))
                            .toList(),
                    Math.max(0, broken.size() - MOST),
                    of.get(0).isMeasured()));
        }
        return new Report(
                sections,
                answers.stream().filter(Answer::isBroken).count(),
                count(answers, Answer.State.UNPROVEN),
                count(answers, Answer.State.KEPT),
                answers.stream().filter(Answer::isWaived).count());
    }

    private static long count(List<Answer> all, Answer.State state) {
        return all.stream().filter(a -> a.state() == state && !a.isWaived()).count();
    }

    private static Line line(Theme theme, Answer a) {
        Optional<Promises.Colors> colors = a.isMeasured() ? Promises.colors(theme, a) : Optional.empty();
        return new Line(
                PromiseRows.name(a),
                PromiseRows.where(a),
                a.isWaived() && !a.waiver().isEmpty() ? a.waiver() : PromiseRows.says(a),
                PromiseRows.when(a, theme.palette().bands()),
                a.what(),
                colors.map(c -> c.text().hex()).orElse(""),
                colors.map(c -> c.ground().hex()).orElse(""),
                a.values().entrySet().stream()
                        .map(e -> theme.palette()
                                .setting(e.getKey())
                                .map(s -> s.label() + " " + shown(s.kind().words(e.getValue())))
                                .orElse(e.getKey()))
                        .collect(Collectors.joining(", ")));
    }

    private static String shown(String words) {
        return words.isEmpty() ? "nothing" : words;
    }
}
