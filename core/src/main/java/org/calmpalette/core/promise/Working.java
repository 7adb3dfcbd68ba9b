package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/** That each setting changes something: a part of a page is bound to it, or looks different with another value than the one it has. */
final class Working {
    /** Values that are tried before a setting is said to do nothing. */
    private static final int MOST_TRIES = 4;

    private Working() {}

    static List<Answer> of(Theme theme) {
        Rendered made = new Rendered(theme, Map.of());
        Effective values = ThemeBuild.defaults(theme);
        List<Answer> all = new ArrayList<>();
        for (Setting s : theme.palette().settings()) {
            Budget.step();
            all.add(answer(theme, made, values, s));
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
        List<Value> others = AnotherValue.all(s.kind(), values.value(s, widest));
        for (Value other : others.subList(0, Math.min(MOST_TRIES, others.size()))) {
            if (Trial.between(made, new Rendered(theme, Map.of(s.key(), Chosen.of(other))))
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
