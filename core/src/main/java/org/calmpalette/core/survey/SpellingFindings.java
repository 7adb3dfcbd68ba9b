package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;

/** Declarations that browsers drop, and what their authors may have meant. */
final class SpellingFindings {
    private static final Set<String> UNITS = Set.of(
            "px", "em", "rem", "ex", "ch", "vw", "vh", "vmin", "vmax", "svh", "lvh", "dvh", "cm", "mm", "in", "pt",
            "pc", "deg", "rad", "turn", "ms", "fr");
    private static final Set<String> OTHER_UNITS = Set.of(
            "s", "q", "grad", "hz", "khz", "dpi", "dpcm", "dppx", "x", "rex", "rch", "cap", "rcap", "ic", "ric", "lh",
            "rlh", "vi", "vb", "svw", "lvw", "dvw", "svi", "lvi", "dvi", "svb", "lvb", "dvb", "svmin", "svmax", "lvmin",
            "lvmax", "dvmin", "dvmax", "cqw", "cqh", "cqi", "cqb", "cqmin", "cqmax", "db", "st");
    /** Properties whose numbers are always lengths: a bare number other than 0 is not valid. */
    private static final Set<String> LENGTHS = Set.of(
            "width",
            "height",
            "min-width",
            "max-width",
            "min-height",
            "max-height",
            "top",
            "right",
            "bottom",
            "left",
            "gap",
            "row-gap",
            "column-gap",
            "border-radius",
            "letter-spacing",
            "word-spacing",
            "text-indent",
            "outline-width",
            "outline-offset",
            "padding",
            "padding-top",
            "padding-right",
            "padding-bottom",
            "padding-left",
            "margin",
            "margin-top",
            "margin-right",
            "margin-bottom",
            "margin-left",
            "font-size",
            "border-width");

    private final Theme theme;
    private final Map<String, SheetRole> roles;
    private final List<Finding> findings = new ArrayList<>();

    private SpellingFindings(Theme theme, Map<String, SheetRole> roles) {
        this.theme = theme;
        this.roles = roles;
    }

    static List<Finding> of(Theme theme, Map<String, SheetRole> roles) {
        SpellingFindings found = new SpellingFindings(theme, roles);
        theme.sheets().forEach(part -> part.sheet()
                .eachDeclaration((d, around) -> found.look(new Located(part, d, List.copyOf(around)))));
        return found.findings;
    }

    private void look(Located at) {
        boolean styles = at.around().stream()
                .allMatch(r -> r instanceof Node.StyleRule
                        || r instanceof Node.AtRule rule
                                && Set.of("media", "supports", "layer", "container", "scope", "keyframes")
                                        .contains(rule.name()));
        Node.Declaration d = at.declaration();
        // Hacks for old browsers are written so that others drop them; addresses inside @supports are asked on purpose.
        String value = at.value();
        if (!styles
                || at.around().isEmpty()
                || d.isCustom()
                || value.contains("\\")
                || value.contains("progid:")
                || value.contains("expression(")) {
            return;
        }
        boolean keyframe = at.around().stream()
                .anyMatch(r -> r instanceof Node.AtRule rule && rule.name().endsWith("keyframes"));
        if (!keyframe && Readers.selector(at.part().sheet(), at.around()).isEmpty() || important(at)) {
            return;
        }
        Understanding understanding = Understanding.of(d.property(), value);
        if (understanding == Understanding.UNKNOWN_PROPERTY) {
            property(at);
        } else if (!Understanding.isPrefixed(d.property())) {
            value(at);
        }
    }

    private void add(
            Finding.Kind kind,
            Located at,
            int offset,
            String message,
            String mend,
            String wrong,
            String right,
            int length) {
        ThemeSheet part = at.part();
        String file = part.path();
        Finding finding = new Finding(
                        kind, file, part.file().line(offset), part.file().column(offset), message, mend)
                .about(selector(at) + " { " + at.declaration().property() + ": " + at.value() + " }")
                .painting(painted(at));
        findings.add(
                right == null
                        ? finding
                        : finding.fixedBy(() -> Change.edit(
                                "Corrected “" + wrong + "” to “" + right + "” in " + file + ", line " + finding.line(),
                                file,
                                new Edit(offset, offset + length, right))));
    }

    private static String selector(Located at) {
        return at.rule() == null ? "" : at.part().sheet().prelude(at.rule());
    }

    private static List<Painted> painted(Located at) {
        return Readers.selector(at.part().sheet(), at.around())
                .map(s -> PageSelector.of(s, at.declaration().property()))
                .orElse(List.of());
    }

    /** A mark at the end that is nearly {@code !important}. */
    private boolean important(Located at) {
        Tokens tokens = at.part().sheet().tokens();
        Node.Declaration d = at.declaration();
        int last = d.valueEnd() - 1;
        if (last <= d.valueFirst() || !tokens.is(last, TokenType.IDENT)) {
            return false;
        }
        int mark = last - 1;
        while (mark > d.valueFirst() && tokens.isBlank(mark)) {
            mark--;
        }
        if (!tokens.is(mark, TokenType.DELIM)
                || !tokens.raw(mark).equals("!")
                || Spelling.distance(tokens.lower(last), "important") > 2) {
            return false;
        }
        add(
                Finding.Kind.MISSPELT_IMPORTANT,
                at,
                at.start(last),
                "“!" + tokens.raw(last) + "” is misspelt, so browsers drop the whole declaration.",
                "Write !important.",
                tokens.raw(last),
                "important",
                tokens.raw(last).length());
        return true;
    }

    private void property(Located at) {
        String name = at.declaration().property();
        if (Understanding.isPrefixed(name) || !name.matches("[a-z-]+")) {
            return;
        }
        Optional<String> meant = Spelling.nearest(
                name,
                Understanding.properties(),
                p -> !Understanding.isPrefixed(p)
                        && Understanding.of(p, at.value()) == Understanding.FULL
                        && Understanding.strangeWords(p, at.value()).isEmpty());
        if (meant.isPresent()) {
            add(
                    Finding.Kind.MISSPELT_PROPERTY,
                    at,
                    at.nameStart(),
                    "Browsers know no property “" + name + "”, so they drop the declaration.",
                    "Write " + meant.get() + ".",
                    name,
                    meant.get(),
                    name.length());
        } else if (roles.get(at.part().path()).lasts()) {
            add(
                    Finding.Kind.UNKNOWN_PROPERTY,
                    at,
                    at.nameStart(),
                    "Browsers know no property “" + name + "”, so they drop the declaration.",
                    "Take it out, or check what it was meant to be.",
                    name,
                    null,
                    0);
        }
    }

    private void value(Located at) {
        String property = at.declaration().property();
        Tokens tokens = at.part().sheet().tokens();
        List<String> strange = Understanding.strangeWords(property, at.value());
        for (int i = at.declaration().valueFirst(); i < at.declaration().valueEnd(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, at.declaration().valueEnd()) : i + 1;
            String raw = tokens.raw(i);
            if (tokens.is(i, TokenType.IDENT) && strange.contains(raw)) {
                word(at, i, raw);
            } else if (tokens.is(i, TokenType.HASH)
                    && Color.parse(raw).isEmpty()
                    && Understanding.of(property, at.value()) == Understanding.INVALID_VALUE) {
                add(
                        Finding.Kind.MISSPELT_VALUE,
                        at,
                        at.start(i),
                        "“" + raw + "” is no colour, so browsers drop the declaration.",
                        "Write 3, 4, 6 or 8 digits from 0 to f behind the sign.",
                        raw,
                        null,
                        0);
            } else if (tokens.is(i, TokenType.DIMENSION)) {
                unit(at, i, raw, tokens.lower(i));
            } else if (tokens.is(i, TokenType.NUMBER)
                    && LENGTHS.contains(property)
                    && tokens.number(i) != 0
                    && isStrict()) {
                add(
                        Finding.Kind.MISSPELT_VALUE,
                        at,
                        at.start(i),
                        "“" + raw + "” has no unit, so browsers drop the declaration “" + property + ": " + at.value()
                                + "”.",
                        "Write " + raw + "px.",
                        raw,
                        raw + "px",
                        raw.length());
            }
            i = next;
        }
    }

    /** Pages without a doctype let some lengths pass without a unit. */
    private boolean isStrict() {
        return theme.pages().stream().allMatch(p -> p.document().documentType() != null);
    }

    private void word(Located at, int token, String raw) {
        String property = at.declaration().property();
        Spelling.nearest(raw.toLowerCase(Locale.ROOT), Understanding.words(property), w -> true)
                .ifPresent(meant -> add(
                        Finding.Kind.MISSPELT_VALUE,
                        at,
                        at.start(token),
                        "“" + raw + "” is no value of " + property + ", so browsers drop the declaration.",
                        "Write " + meant + ".",
                        raw,
                        meant,
                        raw.length()));
    }

    private void unit(Located at, int token, String raw, String unit) {
        if (UNITS.contains(unit) || OTHER_UNITS.contains(unit) || !unit.matches("[a-z]{2,4}")) {
            return;
        }
        UNITS.stream()
                .sorted()
                .filter(u -> Spelling.distance(unit, u) <= 1)
                .findFirst()
                .ifPresent(meant -> {
                    String right = raw.substring(0, raw.length() - unit.length()) + meant;
                    add(
                            Finding.Kind.MISSPELT_VALUE,
                            at,
                            at.start(token),
                            "“" + raw + "” has a unit that browsers do not know, so they drop the declaration.",
                            "Write " + right + ".",
                            raw,
                            right,
                            raw.length());
                });
    }
}
