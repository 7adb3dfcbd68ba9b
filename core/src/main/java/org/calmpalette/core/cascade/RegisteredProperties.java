package org.calmpalette.core.cascade;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;
import org.calmpalette.core.value.Lengths;

/** Values of registered custom properties by their syntax: CSS Properties and Values 1, section 5. */
final class RegisteredProperties implements CustomProperties.Registry {
    private final ElementStyle style;
    private final Map<String, SheetReader.Registered> registered;

    RegisteredProperties(ElementStyle style, Map<String, SheetReader.Registered> registered) {
        this.style = style;
        this.registered = registered;
    }

    /**
     * What a declaration says of a custom property. An address in one that is registered as an address means the same file
     * wherever it is read, so it is seen from the theme's folder; in others it is seen from the stylesheet that reads it.
     */
    static String absolute(SheetReader.Registered r, CascadedDeclaration a) {
        if (r == null || !r.syntax().contains("<url>") || a.rule() == null) {
            return a.value();
        }
        List<ComponentValue> parts = ComponentValue.read(a.value());
        boolean address = parts.size() == 1 && parts.get(0).kind() == Kind.URL;
        return address
                ? Paths.resolve(a.rule().source().file().file(), parts.get(0).name())
                        .map(p -> "url(" + Escapes.string("/" + p) + ")")
                        .orElse(a.value())
                : a.value();
    }

    @Override
    public Optional<SheetReader.Registered> get(String name) {
        return Optional.ofNullable(registered.get(name));
    }

    @Override
    public Optional<String> computed(SheetReader.Registered r, String value) {
        if (r.syntax().equals("*")) {
            return Optional.of(value);
        }
        for (String alternative : r.syntax().split("\\|")) {
            Optional<String> fits = fits(alternative.strip(), value);
            if (fits.isPresent()) {
                return fits;
            }
        }
        return Optional.empty();
    }

    private Optional<String> fits(String syntax, String value) {
        List<ComponentValue> parts = ComponentValue.read(value);
        boolean list = syntax.endsWith("+") || syntax.endsWith("#");
        if (list) {
            String item = syntax.substring(0, syntax.length() - 1);
            boolean all = parts.stream().filter(p -> p.kind() != Kind.COMMA).allMatch(p -> one(item, p)
                    .isPresent());
            return all && !parts.isEmpty() ? Optional.of(value) : Optional.empty();
        }
        return parts.size() == 1 ? one(syntax, parts.get(0)) : Optional.empty();
    }

    private Optional<String> one(String syntax, ComponentValue p) {
        Lengths.Base base = syntax.contains("length")
                ? style.base()
                : new Lengths.Base(16, 16, style.page().window());
        return switch (syntax) {
            case "<color>" -> Expansion.isColor(p) ? style.color(p.text()).map(Color::css) : Optional.empty();
            case "<length>" ->
                Lengths.sum(p, base).filter(s -> !s.needsLayout()).map(Lengths::text);
            case "<percentage>" ->
                Lengths.sum(p, base)
                        .filter(s -> s.px() == 0 && p.kind() != Kind.NUMBER)
                        .map(Lengths::text);
            case "<length-percentage>" -> Lengths.sum(p, base).map(Lengths::text);
            case "<number>" ->
                Lengths.number(p, base).isPresent()
                        ? Optional.of(Lengths.number(Lengths.number(p, base).getAsDouble()))
                        : Optional.empty();
            case "<integer>" ->
                p.kind() == Kind.NUMBER && p.text().matches("[+-]?\\d+") ? Optional.of(p.text()) : Optional.empty();
            case "<angle>" ->
                p.kind() == Kind.DIMENSION && p.name().matches("deg|grad|rad|turn")
                        ? Optional.of(p.text())
                        : Optional.empty();
            case "<time>" ->
                p.kind() == Kind.DIMENSION && p.name().matches("m?s") ? Optional.of(p.text()) : Optional.empty();
            case "<url>" -> p.kind() == Kind.URL ? Optional.of(p.text()) : Optional.empty();
            case "<image>" -> Expansion.isImage(p) ? Optional.of(p.text()) : Optional.empty();
            case "<string>" -> p.kind() == Kind.STRING ? Optional.of(p.text()) : Optional.empty();
            case "<custom-ident>" ->
                p.kind() == Kind.IDENT && !Expansion.isWide(p.name()) ? Optional.of(p.text()) : Optional.empty();
            default -> p.kind() == Kind.IDENT && p.text().equals(syntax) ? Optional.of(p.text()) : Optional.empty();
        };
    }
}
