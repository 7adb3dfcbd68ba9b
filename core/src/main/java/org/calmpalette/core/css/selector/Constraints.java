package org.calmpalette.core.css.selector;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.time.temporal.IsoFields;
import java.util.Arrays;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.jsoup.nodes.Element;

/** Whether the value of an {@code input} satisfies its constraints: HTML Standard, sections 4.10.5.1 and 4.10.21. */
final class Constraints {
    private static final Pattern EMAIL =
            Pattern.compile("[\\w.!#$%&'*+/=?^`{|}~-]+@[A-Za-z0-9](?:[A-Za-z0-9-]{0,61}[A-Za-z0-9])?"
                    + "(?:\\.[A-Za-z0-9](?:[A-Za-z0-9-]{0,61}[A-Za-z0-9])?)*");
    private static final Pattern NUMBER = Pattern.compile("-?(?:\\d+(?:\\.\\d+)?|\\.\\d+)(?:[eE][+-]?\\d+)?");
    private static final Pattern WEEK = Pattern.compile("(\\d{4,})-W(\\d{2})");
    private static final Pattern ADDRESS = Pattern.compile("([A-Za-z][A-Za-z0-9+.-]*):(.*)", Pattern.DOTALL);
    /** Schemes whose address needs a host: URL Standard, section 4.2. */
    private static final Set<String> SPECIAL = Set.of("http", "https", "ftp", "ws", "wss");

    private static final Set<String> WITH_PATTERN = Set.of("text", "search", "url", "tel", "email", "password");
    private static final Set<String> RANGED = Set.of("number", "date", "month", "week", "time", "datetime-local");
    private static final double DAY = 86_400;

    private Constraints() {}

    /** The value after sanitization: what is none for the type becomes empty. */
    private static String value(Element e) {
        String value = FormState.value(e);
        String type = FormState.type(e);
        return switch (type) {
            case "email" ->
                e.hasAttr("multiple")
                        ? String.join(
                                ",",
                                Arrays.stream(value.split(",", -1))
                                        .map(String::strip)
                                        .toList())
                        : value.replaceAll("[\\r\\n]", "").strip();
            case "url" -> value.replaceAll("[\\r\\n]", "").strip();
            case "number" -> NUMBER.matcher(value).matches() ? value : "";
            case "date", "month", "week", "time", "datetime-local" ->
                number(type, value).isPresent() ? value : "";
            default -> value;
        };
    }

    static boolean isValid(Element e) {
        String type = FormState.type(e);
        String value = value(e);
        if (isMissing(e, type, value)) {
            return false;
        }
        if (value.isEmpty()) {
            return true;
        }
        boolean typed =
                switch (type) {
                    case "email" ->
                        (e.hasAttr("multiple")
                                        ? Arrays.stream(value.split(",", -1))
                                        : Arrays.stream(new String[] {value}))
                                .allMatch(v -> EMAIL.matcher(v).matches());
                    case "url" -> isAddress(value);
                    default -> true;
                };
        boolean patterned =
                !e.hasAttr("pattern") || !WITH_PATTERN.contains(type) || matchesPattern(value, e.attr("pattern"));
        return typed && patterned && isInRange(e) && isOnStep(e, type, value);
    }

    private static boolean isMissing(Element e, String type, String value) {
        if (type.equals("radio")) {
            // One that is required makes its whole group so.
            boolean named = !e.attr("name").isEmpty();
            return named
                    ? FormState.group(e).stream().anyMatch(o -> o.hasAttr("required"))
                            && FormState.group(e).stream().noneMatch(o -> o.hasAttr("checked"))
                    : e.hasAttr("required") && !e.hasAttr("checked");
        }
        if (!e.hasAttr("required") || !FormState.takesRequired(e)) {
            return false;
        }
        return switch (type) {
            case "checkbox" -> !e.hasAttr("checked");
            case "file" -> true;
            default -> value.isEmpty();
        };
    }

    private static boolean isAddress(String value) {
        Matcher parts = ADDRESS.matcher(value);
        return parts.matches()
                && (!SPECIAL.contains(parts.group(1).toLowerCase(Locale.ROOT))
                        || !parts.group(2).replaceFirst("^[/\\\\]*", "").isEmpty());
    }

    private static boolean matchesPattern(String value, String pattern) {
        try {
            return value.matches(pattern);
        } catch (PatternSyntaxException | StackOverflowError tooMuch) {
            return true;
        }
    }

    /** Whether a least or greatest value limits it, so that {@code :in-range} or {@code :out-of-range} applies. */
    static boolean hasRange(Element e) {
        String type = FormState.type(e);
        if (!e.normalName().equals("input") || FormState.isDisabled(e)) {
            return false;
        }
        boolean limited = limit(e, type, "min").isPresent()
                || limit(e, type, "max").isPresent()
                // Chromium counts a field without a value as one in its range.
                || RANGED.contains(type) && number(type, value(e)).isEmpty();
        return type.equals("range") || limited && !e.hasAttr("readonly");
    }

    private static OptionalDouble limit(Element e, String type, String name) {
        return number(type, e.attr(name));
    }

    static boolean isInRange(Element e) {
        String type = FormState.type(e);
        OptionalDouble value = number(type, value(e));
        // Of a range the browser moves the value between its ends.
        if (value.isEmpty() || type.equals("range")) {
            return true;
        }
        OptionalDouble min = limit(e, type, "min");
        OptionalDouble max = limit(e, type, "max");
        double v = value.getAsDouble();
        if (type.equals("time") && min.isPresent() && max.isPresent() && max.getAsDouble() < min.getAsDouble()) {
            // Over midnight: section 4.10.5.3.7, a reversed range.
            return v >= min.getAsDouble() || v <= max.getAsDouble();
        }
        return (min.isEmpty() || v >= min.getAsDouble()) && (max.isEmpty() || v <= max.getAsDouble());
    }

    private static boolean isOnStep(Element e, String type, String value) {
        OptionalDouble v = number(type, value);
        if (v.isEmpty() || type.equals("range") || e.attr("step").equalsIgnoreCase("any")) {
            return true;
        }
        double unit =
                switch (type) {
                    case "date" -> DAY;
                    case "week" -> 7 * DAY;
                    default -> 1;
                };
        OptionalDouble given = number("number", e.attr("step"));
        boolean seconds = type.equals("time") || type.equals("datetime-local");
        double step = given.isPresent() && given.getAsDouble() > 0 ? given.getAsDouble() * unit : seconds ? 60 : unit;
        OptionalDouble min = limit(e, type, "min");
        double base = min.isPresent()
                ? min.getAsDouble()
                : number(type, e.attr("value")).orElse(0);
        double off = Math.abs((v.getAsDouble() - base) / step);
        return Math.abs(off - Math.rint(off)) < 1e-7 * Math.max(1, off);
    }

    /** A value as a number: seconds for times and dates, months for months. Empty if it is none for the type. */
    private static OptionalDouble number(String type, String text) {
        try {
            return switch (type) {
                case "number", "range" ->
                    NUMBER.matcher(text).matches()
                            ? OptionalDouble.of(Double.parseDouble(text))
                            : OptionalDouble.empty();
                case "date" -> OptionalDouble.of(LocalDate.parse(text).toEpochDay() * DAY);
                case "month" ->
                    OptionalDouble.of(YearMonth.parse(text).getLong(java.time.temporal.ChronoField.PROLEPTIC_MONTH));
                case "time" -> OptionalDouble.of(LocalTime.parse(text).toNanoOfDay() / 1e9);
                case "datetime-local" ->
                    OptionalDouble.of(LocalDateTime.parse(text.replace(' ', 'T'))
                                    .toInstant(ZoneOffset.UTC)
                                    .toEpochMilli()
                            / 1e3);
                case "week" -> week(text);
                default -> OptionalDouble.empty();
            };
        } catch (DateTimeException none) {
            return OptionalDouble.empty();
        }
    }

    private static OptionalDouble week(String text) {
        Matcher m = WEEK.matcher(text);
        if (!m.matches()) {
            return OptionalDouble.empty();
        }
        int week = Integer.parseInt(m.group(2));
        LocalDate fourth = LocalDate.of(Integer.parseInt(m.group(1)), 1, 4);
        if (week < 1
                || week
                        > IsoFields.WEEK_OF_WEEK_BASED_YEAR
                                .rangeRefinedBy(fourth)
                                .getMaximum()) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(fourth.with(IsoFields.WEEK_OF_WEEK_BASED_YEAR, week)
                        .with(java.time.DayOfWeek.MONDAY)
                        .toEpochDay()
                * DAY);
    }
}
