package org.calmpalette.app.sites;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.settings.Controls;
import org.calmpalette.app.web.Times;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.OwnerWords;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Painted;

/** What an owner is asked, with what the draft holds. */
final class Questions {
    /** So many questions come with the page; of more, those of the first place do, and the others when they are wanted. */
    private static final int AT_ONCE = 150;

    private Questions() {}

    /**
     * One question of the slip: a setting with the value it has in the draft.
     *
     * @param fields what its control shows
     * @param chosen whether the owner has chosen it, everywhere or in a band
     * @param bands the bands in which it may differ, or does
     * @param was names what is chosen, see {@link FromWindow#of}
     */
    public record Question(
            Setting setting,
            Map<String, String> fields,
            String value,
            String asMade,
            boolean chosen,
            List<Painted> painted,
            String refusal,
            String allowed,
            boolean asked,
            List<InBand> bands,
            String was,
            List<Aside> asides) {}

    /**
     * What another window wrote for a question, which the draft does not hold.
     *
     * @param told who wrote it where and when, in words
     */
    public record Aside(long id, String told, String value) {
        static Aside of(SiteAside aside, Setting s, Bands bands, String me) {
            String at = Times.at(aside.at(), "HH:mm");
            String band = bands.band(aside.band()).map(Band::label).orElse("");
            boolean mine = aside.author().equals(me);
            String told = band.isEmpty()
                    ? mine ? Language.say("aside.window", at) : Language.say("aside.person", at, aside.author())
                    : mine
                            ? Language.say("aside.window.band", at, band)
                            : Language.say("aside.person.band", at, aside.author(), band);
            return new Aside(aside.id(), told, Controls.said(s, s.kind().words(aside.value())));
        }
    }

    /**
     * The setting in one band.
     *
     * @param own whether the owner has chosen something for it
     * @param made whether the maker has
     * @param mayDiffer whether the owner may choose
     * @param was names what is chosen
     */
    public record InBand(
            Band band,
            String widths,
            Map<String, String> fields,
            String value,
            boolean own,
            boolean made,
            boolean mayDiffer,
            String was) {}

    /**
     * A place with its questions.
     *
     * @param questions empty where they come later
     * @param page on which it is, if it is a section; else empty
     */
    public record Asked(Place place, List<Question> questions, String page) {
        /** Of so many questions, or fewer, none is folded away. */
        private static final int FEW = 8;
        /** Fewer than so many are not worth a fold. */
        private static final int FEW_FINER = 3;

        /** Asked at once: what the place says and shows, in the maker's order. */
        public List<Question> first() {
            return isFolded() ? of(false) : asked();
        }

        /** Asked behind a fold, in the maker's order; empty where all are asked at once. */
        public List<Question> finer() {
            return isFolded() ? of(true) : List.of();
        }

        private boolean isFolded() {
            return asked().size() > FEW && of(true).size() >= FEW_FINER;
        }

        private List<Question> of(boolean finer) {
            return asked().stream()
                    .filter(q -> q.setting.kind().isFiner() == finer)
                    .toList();
        }

        private List<Question> asked() {
            return questions.stream().filter(Question::asked).toList();
        }

        /** Whether something behind the fold is the owner's own or has to be seen. */
        public boolean isUnfolded() {
            return finer().stream()
                    .anyMatch(q -> q.chosen
                            || !q.refusal.isEmpty()
                            || !q.asides.isEmpty()
                            || q.bands.stream().anyMatch(InBand::own));
        }

        /** What is behind the fold, by name. */
        public String finerWords() {
            return finer().stream().map(q -> q.setting.label()).collect(Collectors.joining(", "));
        }
    }

    /** By place. @param wanted key of a place whose questions are asked for; empty for the first one */
    static List<Asked> of(SiteService.OpenSite open, ColorUsage.Result colors, String wanted, SignedIn me) {
        Palette palette = open.theme().palette();
        Effective values = ThemeBuild.chosen(open.theme(), open.draft().choices());
        Effective made = ThemeBuild.defaults(open.theme());
        boolean all = palette.settings().size() <= AT_ONCE;
        Map<String, String> pages = Sections.pages(open.theme());
        List<Asked> asked = new ArrayList<>();
        for (Place place : palette.places()) {
            List<Setting> settings = palette.settingsIn(place);
            if (!settings.isEmpty()) {
                boolean now = all || place.key().equals(wanted) || wanted.isEmpty() && asked.isEmpty();
                asked.add(new Asked(
                        place,
                        now
                                ? settings.stream()
                                        .map(s -> question(open, s, values, made, colors, me.name()))
                                        .toList()
                                : List.of(),
                        pages.getOrDefault(place.key(), "")));
            }
        }
        return asked;
    }

    /** What may be chosen, where the control does not show it by itself. */
    private static String told(Theme theme, Setting s) {
        // Of a colour the field shows it, and a refusal says why.
        boolean shown = s.kind() instanceof ColorKind
                || s.kind() instanceof BackgroundKind
                || s.kind() instanceof YesNoKind
                || s.kind() instanceof ChoiceKind
                || s.kind() instanceof LevelKind;
        return shown
                ? ""
                : Language.say(
                        "site.allowed",
                        Controls.plain(named(theme.palette(), s.kind().inWords())));
    }

    /** With the labels of settings in the place of their keys, which owners do not know. */
    private static String named(Palette palette, String words) {
        String text = words;
        for (Setting s : palette.settings()) {
            text = text.replace(Language.say("quoted", s.key()), Language.say("quoted", s.label()));
        }
        return text;
    }

    private static Question question(
            SiteService.OpenSite open,
            Setting s,
            Effective values,
            Effective made,
            ColorUsage.Result colors,
            String me) {
        Bands bands = open.theme().palette().bands();
        Band widest = bands.widest();
        Chosen chosen = open.draft().choices().getOrDefault(s.key(), new Chosen(null, Map.of()));
        List<InBand> inBands = new ArrayList<>();
        for (Band b : bands.list()) {
            boolean ownWay = s.perBand() || s.bands().containsKey(b.key());
            if (b != widest && ownWay) {
                inBands.add(new InBand(
                        b,
                        bands.inWords(b),
                        s.kind().fields(values.value(s, b)),
                        Controls.said(s, values.words(s, b)),
                        chosen.bands().containsKey(b.key()),
                        s.bands().containsKey(b.key()),
                        s.perBand(),
                        FromWindow.of(chosen.in(b.key()))));
            }
        }
        List<Painted> painted = new ArrayList<>(colors.boundTo(s.key()).stream()
                .flatMap(b -> b.paints().stream())
                .distinct()
                .toList());
        s.kind()
                .bindings()
                .forEach(b -> painted.add(new Painted("[" + b.attribute() + "=\"" + s.key() + "\"]", "content", "")));
        String refusal = open.leftOut().stream()
                .filter(l -> l.key().equals(s.key()))
                .findFirst()
                .map(l -> Language.say(
                        "site.refused",
                        l.value(),
                        l.why().said(new OwnerWords(open.theme().palette()))))
                .orElse("");
        return new Question(
                s,
                s.kind().fields(values.value(s, widest)),
                values.words(s, widest),
                s.given() instanceof Given.Follows f
                        ? open.theme().palette().said(f)
                        : Controls.said(s, made.words(s, widest)),
                !chosen.isEmpty(),
                painted,
                refusal,
                told(open.theme(), s),
                values.isAsked(s),
                inBands,
                FromWindow.of(chosen.in("")),
                open.asides().stream()
                        .filter(x -> x.settingKey().equals(s.key()))
                        .map(x -> Aside.of(x, s, bands, me))
                        .toList());
    }
}
