package org.calmpalette.core.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A start tag as it is written, and where its attributes stand: HTML, sections 13.2.5.8 and 13.2.5.32 to 40. All that is not the
 * attribute itself stays as it is, to the character.
 *
 * @param text from {@code <} to {@code >}
 */
public record StartTag(String text) {

    /**
     * The places of an attribute, counted from the {@code <}.
     *
     * @param name in lower case
     * @param end behind the value and its quote, or behind the name where there is no value
     * @param valueStart inside of the quotes; -1 if there is no value
     */
    public record Attribute(String name, int start, int end, int valueStart, int valueEnd) {}

    private static boolean isBlank(char c) {
        return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f';
    }

    /** Behind the name of the element. */
    public int nameEnd() {
        int i = 1;
        while (i < text.length() && !isBlank(text.charAt(i)) && text.charAt(i) != '/' && text.charAt(i) != '>') {
            i++;
        }
        return i;
    }

    /** In the order that they are written in; of two with one name, browsers take the first. */
    public List<Attribute> attributes() {
        List<Attribute> found = new ArrayList<>();
        int i = nameEnd();
        while (true) {
            while (i < text.length() && (isBlank(text.charAt(i)) || text.charAt(i) == '/')) {
                i++;
            }
            if (i >= text.length() || text.charAt(i) == '>') {
                return found;
            }
            int start = i;
            // A sign of equality that comes first belongs to the name.
            i++;
            while (i < text.length() && !isBlank(text.charAt(i)) && "/>=".indexOf(text.charAt(i)) < 0) {
                i++;
            }
            String name = text.substring(start, i).toLowerCase(Locale.ROOT);
            int end = i;
            int next = skip(i);
            if (next >= text.length() || text.charAt(next) != '=') {
                found.add(new Attribute(name, start, end, -1, -1));
                i = next;
                continue;
            }
            int from = skip(next + 1);
            char quote = from < text.length() ? text.charAt(from) : '>';
            if (quote == '"' || quote == '\'') {
                int closing = text.indexOf(quote, from + 1);
                int to = closing < 0 ? text.length() : closing;
                end = Math.min(text.length(), to + 1);
                found.add(new Attribute(name, start, end, from + 1, to));
            } else {
                end = from;
                while (end < text.length() && !isBlank(text.charAt(end)) && text.charAt(end) != '>') {
                    end++;
                }
                found.add(new Attribute(name, start, end, from, end));
            }
            i = end;
        }
    }

    private int skip(int i) {
        int at = i;
        while (at < text.length() && isBlank(text.charAt(at))) {
            at++;
        }
        return at;
    }

    public Optional<Attribute> attribute(String name) {
        return attributes().stream().filter(a -> a.name().equals(name)).findFirst();
    }

    /** Gives an attribute a value: in its place if it is there, else behind the last one. @param value with its escapes, without {@code "} */
    public StartTag with(String name, String value) {
        String written = name + "=\"" + value + "\"";
        List<Attribute> all = attributes();
        Optional<Attribute> there =
                all.stream().filter(a -> a.name().equals(name)).findFirst();
        if (there.isPresent()) {
            return new StartTag(text.substring(0, there.get().start())
                    + written
                    + text.substring(there.get().end()));
        }
        int at = all.isEmpty() ? nameEnd() : all.get(all.size() - 1).end();
        return new StartTag(text.substring(0, at) + " " + written + text.substring(at));
    }

    /** Takes an attribute out, with the white space before it. */
    public StartTag without(String name) {
        return attribute(name)
                .map(a -> new StartTag(text.substring(0, before(a)) + text.substring(a.end())))
                .orElse(this);
    }

    /** Where the white space before an attribute begins. */
    public int before(Attribute a) {
        int start = a.start();
        while (start > 0 && isBlank(text.charAt(start - 1))) {
            start--;
        }
        return start;
    }

    /** Another element with the same attributes. */
    public StartTag named(String name) {
        return new StartTag("<" + name + text.substring(nameEnd()));
    }
}
