package org.calmpalette.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.Budget;

/**
 * One layer of a background: CSS Backgrounds 3, section 3. The uppermost layer comes first.
 *
 * @see <a href="https://www.w3.org/TR/css-backgrounds-3/#layering">CSS Backgrounds 3, section 3.1</a>
 */
public record BackgroundLayer(
        Image image,
        Position position,
        Size size,
        Repeat repeatX,
        Repeat repeatY,
        Box origin,
        Box clip,
        Attachment attachment) {
    /** How an axis is filled. */
    public enum Repeat {
        REPEAT,
        NO_REPEAT,
        SPACE,
        ROUND
    }

    /** A box of an element; {@link #TEXT} for a background that shows in the letters only. */
    public enum Box {
        BORDER_BOX,
        PADDING_BOX,
        CONTENT_BOX,
        TEXT
    }

    /** What a background is fixed to. */
    public enum Attachment {
        SCROLL,
        FIXED,
        LOCAL
    }

    /** How large the picture is drawn. */
    public sealed interface Size {
        record Cover() implements Size {}

        record Contain() implements Size {}

        /** @param width empty for {@code auto}; a percentage is of the positioning area */
        record Given(Optional<Lengths.Sum> width, Optional<Lengths.Sum> height) implements Size {}
    }

    /** The computed longhands of a background, each a list over the layers. */
    public record Longhands(
            String image,
            String positionX,
            String positionY,
            String size,
            String repeat,
            String origin,
            String clip,
            String attachment) {}

    /** More of them nobody writes by hand, and what lies behind them is not told. */
    public static final int MOST_LAYERS = 200;

    /**
     * Reads the layers, the uppermost first. {@code none} is a layer too, as it is for the lists of the other longhands.
     *
     * @return empty if one of the values cannot be read; an image of an unknown kind is {@link Image.Unread}
     */
    public static Optional<List<BackgroundLayer>> read(Longhands l) {
        List<List<ComponentValue>> images = lists(l.image());
        if (images.size() > MOST_LAYERS) {
            return Optional.empty();
        }
        // Each list is read once, however many layers there are.
        List<List<ComponentValue>> across = lists(l.positionX());
        List<List<ComponentValue>> down = lists(l.positionY());
        List<List<ComponentValue>> sizes = lists(l.size());
        List<List<ComponentValue>> repeats = lists(l.repeat());
        List<List<ComponentValue>> origins = lists(l.origin());
        List<List<ComponentValue>> clips = lists(l.clip());
        List<List<ComponentValue>> attachments = lists(l.attachment());
        List<BackgroundLayer> layers = new ArrayList<>();
        for (int i = 0; i < images.size(); i++) {
            Budget.step();
            if (images.get(i).isEmpty()) {
                return Optional.empty();
            }
            List<ComponentValue> position = new ArrayList<>(nth(across, i));
            position.addAll(nth(down, i));
            Optional<Position> at = Position.read(position);
            Optional<Size> size = size(nth(sizes, i));
            Optional<Repeat[]> repeat = repeat(nth(repeats, i));
            Optional<Box> origin = box(nth(origins, i));
            Optional<Box> clip = box(nth(clips, i));
            Optional<Attachment> attachment = word(Attachment.class, nth(attachments, i));
            if (at.isEmpty()
                    || size.isEmpty()
                    || repeat.isEmpty()
                    || origin.isEmpty()
                    || clip.isEmpty()
                    || attachment.isEmpty()) {
                return Optional.empty();
            }
            layers.add(new BackgroundLayer(
                    Image.read(images.get(i).get(0)),
                    at.get(),
                    size.get(),
                    repeat.get()[0],
                    repeat.get()[1],
                    origin.get(),
                    clip.get(),
                    attachment.get()));
        }
        return Optional.of(List.copyOf(layers));
    }

    private static List<List<ComponentValue>> lists(String text) {
        return ComponentValue.commaSeparated(ComponentValue.read(text));
    }

    /** Lists that are too short repeat: section 3.1. */
    private static List<ComponentValue> nth(List<List<ComponentValue>> all, int i) {
        return all.get(i % all.size());
    }

    private static Optional<Size> size(List<ComponentValue> parts) {
        if (parts.isEmpty() || parts.size() > 2) {
            return Optional.empty();
        }
        if (parts.size() == 1 && parts.get(0).isIdent("cover")) {
            return Optional.of(new Size.Cover());
        }
        if (parts.size() == 1 && parts.get(0).isIdent("contain")) {
            return Optional.of(new Size.Contain());
        }
        List<Optional<Lengths.Sum>> sides = new ArrayList<>();
        for (ComponentValue p : parts) {
            Optional<Lengths.Sum> sum = Lengths.sum(p, Lengths.Base.NONE);
            if (sum.isEmpty() && !p.isIdent("auto")) {
                return Optional.empty();
            }
            sides.add(sum);
        }
        return Optional.of(new Size.Given(sides.get(0), sides.size() > 1 ? sides.get(1) : Optional.empty()));
    }

    private static Optional<Repeat[]> repeat(List<ComponentValue> parts) {
        if (parts.size() == 1 && parts.get(0).isIdent("repeat-x")) {
            return Optional.of(new Repeat[] {Repeat.REPEAT, Repeat.NO_REPEAT});
        }
        if (parts.size() == 1 && parts.get(0).isIdent("repeat-y")) {
            return Optional.of(new Repeat[] {Repeat.NO_REPEAT, Repeat.REPEAT});
        }
        if (parts.isEmpty() || parts.size() > 2) {
            return Optional.empty();
        }
        Optional<Repeat> x = word(Repeat.class, parts.subList(0, 1));
        Optional<Repeat> y = word(Repeat.class, parts.subList(parts.size() - 1, parts.size()));
        return x.isPresent() && y.isPresent() ? Optional.of(new Repeat[] {x.get(), y.get()}) : Optional.empty();
    }

    private static Optional<Box> box(List<ComponentValue> parts) {
        return word(Box.class, parts);
    }

    private static <T extends Enum<T>> Optional<T> word(Class<T> type, List<ComponentValue> parts) {
        for (T constant : type.getEnumConstants()) {
            if (parts.size() == 1
                    && parts.get(0)
                            .isIdent(constant.name().toLowerCase(Locale.ROOT).replace('_', '-'))) {
                return Optional.of(constant);
            }
        }
        return Optional.empty();
    }
}
