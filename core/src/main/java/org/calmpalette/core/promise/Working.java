package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/** That each setting changes something: a part of a page is bound to it, or looks different with another value than the one it has. */
final class Working {
    /** Values that are tried before a setting is said to do nothing. */
    private static final int MOST_TRIES = 4;

    private Working() {}

    static List<Answer> of(Theme theme) {
        return of(theme, Set.of(), s -> null, Proved.NOTHING, new Proved());
    }

    /**
     * @param painting keys of settings that are known to paint something
     * @param mark what stands for all that the answer about a setting depends on
     * @param before what is known already
     * @param now takes up what is known then
     */
    static List<Answer> of(
            Theme theme, Set<String> painting, Function<Setting, Object> mark, Proved before, Proved now) {
        Rendered made = new Rendered(theme, Map.of());
        Effective values = ThemeBuild.defaults(theme);
        List<Answer> all = new ArrayList<>();
        for (Setting s : theme.palette().settings()) {
            Budget.longStep();
            all.add(
                    painting.contains(s.key())
                            ? Answer.kept(Promise.EFFECTIVE, Answer.Subject.setting(s))
                            : now.effective(before, mark.apply(s), () -> answer(theme, made, values, s)));
        }
        return all;
    }

    private static Answer answer(Theme theme, Rendered made, Effective values, Setting s) {
        Answer.Subject subject = Answer.Subject.setting(s);
        if (isBound(theme, s)) {
            return Answer.kept(Promise.EFFECTIVE, subject);
        }
        boolean followed = !theme.palette().dependents(s.key()).isEmpty();
        if (!followed && !isRead(theme, s)) {
            return Answer.broken(
                    Promise.EFFECTIVE,
                    subject,
                    Map.of(),
                    "No stylesheet reads it and no part of a page is bound to it.");
        }
        Band widest = theme.palette().bands().widest();
        List<Value> others = others(theme, s, values.value(s, widest));
        if (others.isEmpty() && s.kind() instanceof ColorKind && !s.kind().equals(ColorKind.ANY)) {
            // Its limits leave one colour; whether it paints anything is asked without them.
            Setting free = s.withKind(ColorKind.ANY);
            Theme other = theme.with(theme.palette()
                    .replacing(free, theme.palette().place(s.place()).orElseThrow()));
            return answer(other, new Rendered(other, Map.of()), ThemeBuild.defaults(other), free);
        }
        for (Value other : others.subList(0, Math.min(MOST_TRIES, others.size()))) {
            if (Trial.between(made, new Rendered(theme, Map.of(s.key(), s.chosen(other))))
                            .parts()
                    > 0) {
                return Answer.kept(Promise.EFFECTIVE, subject);
            }
        }
        return others.isEmpty()
                ? Answer.unproven(Promise.EFFECTIVE, subject, "no other value to try it with is known here")
                : Answer.unproven(
                        Promise.EFFECTIVE,
                        subject,
                        "no part looks different at 390 or 1440 px with "
                                + s.kind().words(others.get(0)) + ", unless it is in another state");
    }

    /** Of composed values their colours are turned, of pictures another one is taken. */
    private static List<Value> others(Theme theme, Setting s, Value now) {
        List<Value> all = new ArrayList<>(AnotherValue.all(s.kind(), now));
        Kind.Around around = Effective.defaults(theme.palette(), theme.media())
                .around(theme.palette().bands().widest());
        List<Value> tries = new ArrayList<>();
        for (String color : List.of("#2b8a3e", "#111111")) {
            tries.add(s.kind().recolored(now, c -> color));
        }
        if (s.kind() instanceof PictureKind) {
            theme.pictures().forEach(p -> tries.add(Value.of(p)));
        }
        if (now instanceof Value.Parts p && p.has("picture")) {
            tries.add(p.with("color", Value.of("#2b8a3e")).with("picture", Value.of("")));
            theme.pictures().forEach(path -> tries.add(p.with("picture", Value.of(path))));
        }
        for (Value v : tries) {
            try {
                Value normal = s.kind().normal(v);
                if (!normal.equals(now)
                        && !all.contains(normal)
                        && s.kind().refusal(normal, around).isEmpty()) {
                    all.add(normal);
                }
            } catch (BadInputException notOne) {
                // The kind cannot be turned so.
            }
        }
        return all;
    }

    private static boolean isBound(Theme theme, Setting s) {
        return theme.pages().stream().anyMatch(p -> p.elements().stream().anyMatch(e -> s.kind().bindings().stream()
                .map(Binding::attribute)
                .anyMatch(a -> e.attr(a).equals(s.key()))));
    }

    private static boolean isRead(Theme theme, Setting s) {
        Pattern reads = Pattern.compile(Pattern.quote(s.property()) + "(?![\\w])");
        return theme.sheets().stream()
                        .filter(p -> !Theme.isGenerated(p.path()))
                        .anyMatch(p -> reads.matcher(p.file().text()).find())
                || theme.attributes().stream()
                        .anyMatch(p -> reads.matcher(p.file().text()).find());
    }
}
