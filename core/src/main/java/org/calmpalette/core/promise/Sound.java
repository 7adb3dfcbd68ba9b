package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** That {@code palette.json} can be used as it is written: each default is allowed, each scheme, and whatever names a setting finds it. */
final class Sound {
    private Sound() {}

    static List<Answer> of(Theme theme) {
        List<Answer> all = new ArrayList<>();
        for (Palette.Fault f : theme.palette().faults()) {
            all.add(Answer.broken(
                    Promise.SOUND,
                    new Answer.Subject("", -1, f.at(), Palette.FILE + ", line " + f.line(), 0),
                    Map.of(),
                    f.what() + ". " + f.mend()));
        }
        Set<String> wrong = new LinkedHashSet<>();
        for (Effective.Problem p : ThemeBuild.defaults(theme).problems()) {
            if (wrong.add(p.setting().key())) {
                all.add(Answer.broken(
                        Promise.SOUND,
                        Answer.Subject.setting(p.setting()),
                        Map.of(),
                        "Its default for " + p.band().label() + ", "
                                + p.setting().kind().words(p.value()) + ", is not allowed. "
                                + p.why().words()));
            }
        }
        for (Setting s : theme.palette().settings()) {
            if (!wrong.contains(s.key())) {
                all.add(Answer.kept(Promise.SOUND, Answer.Subject.setting(s)));
            }
        }
        theme.palette().schemes().forEach(s -> all.add(scheme(theme, s)));
        theme.pages().forEach(p -> bound(theme, p, all));
        return all;
    }

    private static Answer scheme(Theme theme, Scheme scheme) {
        Answer.Subject subject = new Answer.Subject("", -1, scheme.key(), "Scheme " + scheme.label(), 0);
        Effective with = Effective.of(theme.palette(), scheme.values(), theme.media());
        if (with.leftOut().isEmpty()) {
            return Answer.kept(Promise.SOUND, subject);
        }
        Map<String, Value> values = new LinkedHashMap<>();
        with.leftOut().forEach(l -> {
            if (scheme.values().containsKey(l.key())) {
                values.put(l.key(), scheme.values().get(l.key()).value());
            }
        });
        return Answer.broken(
                Promise.SOUND,
                subject,
                values,
                "It gives “" + with.leftOut().get(0).key() + "” the value "
                        + with.leftOut().get(0).value() + ", which is not allowed. "
                        + with.leftOut().get(0).why().words());
    }

    private static void bound(Theme theme, Page page, List<Answer> all) {
        for (Element e : page.elements()) {
            for (Binding b : Binding.values()) {
                String key = e.attr(b.attribute());
                boolean fills = key.isEmpty()
                        || theme.palette()
                                .setting(key)
                                .filter(s -> s.kind().bindings().contains(b))
                                .isPresent();
                if (!fills) {
                    all.add(Answer.broken(
                            Promise.SOUND,
                            Answer.Subject.part(page, e, 0),
                            Map.of(),
                            b.attribute() + " names “" + key + "”, and no setting of that key can fill the " + b.label()
                                    + "."));
                }
            }
        }
    }
}
