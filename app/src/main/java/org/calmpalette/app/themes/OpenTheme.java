package org.calmpalette.app.themes;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUsage;

/**
 * A theme with its head snapshot, read.
 *
 * @param dismissed findings that the maker does not want to see, by key, with the note
 */
public record OpenTheme(
        StoredTheme stored,
        Snapshot head,
        ThemeCache.Read read,
        boolean canUndo,
        boolean canRedo,
        Map<String, Dismissal> dismissed) {
    /** Pages other than the survey do not wait for it. */
    private static final Duration AT_ONCE = Duration.ZERO;

    private static final Duration A_WHILE = Duration.ofSeconds(3);

    public Theme theme() {
        return read.theme();
    }

    public ColorUsage.Result colors() {
        return read.colors();
    }

    /** Whose each stylesheet is, by path. */
    public Map<String, SheetRole> roles() {
        return read.roles();
    }

    /** @throws BadInputException if it is still being made */
    public Survey survey() {
        return read.surveyWithin(A_WHILE)
                .orElseThrow(() -> new BadInputException(
                        read.failure().isEmpty() ? "The theme is still being looked through." : read.failure(),
                        "Open the survey; it shows how far that is."));
    }

    /** Findings that stand: all but the dismissed ones. */
    public List<Finding> findings() {
        return all().stream().filter(f -> !dismissed.containsKey(f.key())).toList();
    }

    /** All findings, those behind measured pages among them, the worst groups first. */
    private List<Finding> all() {
        return survey().with(read.behind()).findings();
    }

    /** One finding by its key; empty if it is gone. */
    public Optional<Finding> finding(String key) {
        return survey().with(read.behind()).finding(key);
    }

    /** What the trail says beside the survey: colours and findings; empty while they are not known yet. */
    public String surveyCount() {
        Optional<Survey> ready = read.surveyWithin(AT_ONCE);
        return ready.map(s -> String.valueOf(colors().rows().size() + findings().size()))
                .orElse("");
    }

    /** What the theme promises, as far as it is known; empty while it is worked out, or if nobody asked. */
    public Optional<List<Answer>> promises() {
        return read.promises().answers();
    }

    /** What the trail says beside the promises: how many are broken; empty where that is not known. */
    public String brokenCount() {
        return promises()
                .map(all -> String.valueOf(all.stream().filter(Answer::isBroken).count()))
                .orElse("");
    }

    /** Pictures that the theme holds. */
    public int pictureCount() {
        return theme().pictures().size();
    }

    /** Sections that stand on its pages. */
    public int sectionCount() {
        return Sections.names(theme()).size();
    }

    public long id() {
        return stored.id();
    }
}
