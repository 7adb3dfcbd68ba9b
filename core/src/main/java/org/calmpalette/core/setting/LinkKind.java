package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.calmpalette.core.language.Language;

/**
 * Where a link leads. What could run, such as {@code javascript:}, is never a link here.
 *
 * @param targets what it may lead to, among {@link #TARGETS}; empty for all of them
 */
public record LinkKind(List<String> targets) implements Kind {
    public static final LinkKind ANY = new LinkKind(List.of());
    private static final Map<String, String> PATTERNS = patterns();
    public static final List<String> TARGETS = List.copyOf(PATTERNS.keySet());
    static final int LONGEST = 2_000;

    public LinkKind {
        targets = List.copyOf(targets);
    }

    /** Control characters and marks of direction: they make an address look like another one. */
    private static final String UNSEEN =
            "\\u0000-\\u001f\\u007f-\\u009f\\u061c\\u200b-\\u200f\\u2028-\\u202e\\u2060-\\u206f\\ufeff";

    private static Map<String, String> patterns() {
        Map<String, String> all = new LinkedHashMap<>();
        // A page of the theme, by its path: no scheme, no host, nothing that climbs out.
        all.put(
                "page",
                "(?!.*\\.\\.)(?!.*//)[^\\s:/?#\\\\<>\"" + UNSEEN + "][^\\s:?#\\\\<>\"" + UNSEEN + "]*(\\?[^\\s#<>\""
                        + UNSEEN + "]*)?(#[^\\s<>\"" + UNSEEN + "]*)?");
        all.put("anchor", "#[^\\s<>\"" + UNSEEN + "]*");
        all.put("web", "https?://[^\\s<>\"\\\\" + UNSEEN + "]+");
        all.put("mail", "mailto:[^\\s<>\"@" + UNSEEN + "]+@[^\\s<>\"@" + UNSEEN + "]+");
        all.put("phone", "tel:[+0-9][0-9().-]*");
        return java.util.Collections.unmodifiableMap(all);
    }

    static Kind read(JsonEntry e) {
        List<String> targets = e.texts("targets");
        for (String t : targets) {
            if (!TARGETS.contains(t)) {
                throw JsonEntry.bad(
                        e.at("targets"),
                        "“" + t + "” is nothing that a link leads to",
                        "Write some of " + String.join(", ", TARGETS) + ".");
            }
        }
        return new LinkKind(targets);
    }

    private String pattern() {
        List<String> all = new ArrayList<>();
        (targets.isEmpty() ? TARGETS : targets).forEach(t -> all.add(PATTERNS.get(t)));
        return "^(" + String.join("|", all) + ")" + CompositeKind.END;
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts("targets", targets.isEmpty() ? null : Value.of(targets));
    }

    @Override
    public String name() {
        return "link";
    }

    @Override
    public String label() {
        return "link";
    }

    @Override
    public String inWords() {
        return targets.isEmpty()
                ? Language.say("link.any")
                : String.join(
                        ", ",
                        targets.stream().map(t -> Language.say("link." + t)).toList());
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Text t)) {
            throw Kind.wrong(given, "a link", "Write where it leads, such as timetable.html.");
        }
        return t;
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        String text = ((Value.Text) value).text();
        boolean page = !text.startsWith("#") && !text.matches("(?s)[A-Za-z][A-Za-z0-9+.-]*:.*");
        String path = text.replaceFirst("(?s)[?#].*", "");
        // A maker who limits links to pages means those that are there.
        if (page
                && targets.contains("page")
                && text.length() <= LONGEST
                && around.knowsFiles()
                && Pattern.compile(pattern()).matcher(text).find()
                && !around.hasFile(path)
                && !around.hasFile(path.endsWith("/") ? path + "index.html" : path + "/index.html")) {
            return Optional.of(new Refusal.NoPage(path));
        }
        boolean fits = text.length() <= LONGEST
                && Pattern.compile(pattern()).matcher(text).find();
        return fits ? Optional.empty() : Optional.of(new Refusal.NotLinked(text, inWords()));
    }

    @Override
    public Value initial() {
        return Value.of(
                targets.isEmpty() || targets.contains("page")
                        ? "index.html"
                        : targets.contains("anchor")
                                ? "#"
                                : targets.contains("web")
                                        ? "https://example.org/"
                                        : targets.contains("mail") ? "mailto:name@example.org" : "tel:+100");
    }

    @Override
    public String words(Value value) {
        return ((Value.Text) value).text();
    }

    @Override
    public Value.Parts schema(Around around) {
        return Value.parts("type", "string", "pattern", pattern(), "maxLength", LONGEST);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Value.of(meant(fields.apply("").strip())));
    }

    private static final Pattern HOST = Pattern.compile("(?i)www\\.[\\w-]+(\\.[\\w-]+)+([/?#:]\\S*)?");
    private static final Pattern MAIL = Pattern.compile("[\\w.+-]+@[\\w-]+(\\.[\\w-]+)+");
    private static final Pattern PHONE = Pattern.compile("\\+?[0-9][0-9 ()./-]{5,30}");

    /** What people type as a link without the scheme that a browser asks for. */
    private static String meant(String typed) {
        return HOST.matcher(typed).matches()
                ? "https://" + typed
                : MAIL.matcher(typed).matches()
                        ? "mailto:" + typed
                        : PHONE.matcher(typed).matches() ? "tel:" + typed.replaceAll("[^+0-9]", "") : typed;
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.HREF);
    }
}
