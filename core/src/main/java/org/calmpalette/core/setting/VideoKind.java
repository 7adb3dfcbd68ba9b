package org.calmpalette.core.setting;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.language.Language;

/**
 * A video of the theme with the poster that stands in until it plays, and where it cannot start by itself (common
 * practice): {@code {"src": "film/ferry.mp4", "poster": "img/ferry.jpg"}}.
 *
 * @param none whether no video may be chosen; the poster stays then
 * @param mostBytes of the video, 0 for any
 */
public record VideoKind(boolean none, long mostBytes, List<String> formats, PictureKind poster) implements Kind {
    public static final List<String> FORMATS = List.of("mp4", "webm", "ogv");
    public static final VideoKind ANY = new VideoKind(true, 0, List.of(), PictureKind.OR_NONE);

    static Kind read(JsonEntry e) {
        PictureKind film = PictureKind.read(e, FORMATS);
        PictureKind poster =
                e.has("poster") ? PictureKind.read(e.entry("poster"), PictureKind.FORMATS) : PictureKind.ANY;
        return new VideoKind(film.none(), film.mostBytes(), film.formats(), poster);
    }

    private PictureKind film() {
        return new PictureKind(none, 0, 0, null, null, mostBytes, formats);
    }

    @Override
    public Value.Parts allowed() {
        Map<String, Value> parts = new LinkedHashMap<>(film().allowed().parts());
        if (!poster.equals(PictureKind.ANY)) {
            parts.put("poster", poster.allowed());
        }
        return new Value.Parts(parts);
    }

    @Override
    public String name() {
        return "video";
    }

    @Override
    public String label() {
        return "video with poster";
    }

    @Override
    public String inWords() {
        return Language.say("video.allowed", film().inWords("video"), poster.inWords());
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Parts p) || p.parts().size() != 2 || !p.has("src") || !p.has("poster")) {
            throw Kind.wrong(given, "a video", "Write {\"src\": \"film/ferry.mp4\", \"poster\": \"img/ferry.jpg\"}.");
        }
        return Value.parts(
                "src",
                film().normal(p.part("src").orElseThrow()),
                "poster",
                poster.normal(p.part("poster").orElseThrow()));
    }

    /** Why a video by itself may not be chosen; empty if it may. */
    public Optional<Refusal> refusal(String src, Around around) {
        return film().refusal(Value.of(src), around, FORMATS);
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        Value.Parts p = (Value.Parts) value;
        return refusal(p.text("src"), around)
                .or(() -> poster.refusal(p.part("poster").orElseThrow(), around)
                        .map(why -> new Refusal.InPart("Poster", why)));
    }

    @Override
    public Value initial() {
        return Value.parts("src", "", "poster", "");
    }

    /** The poster, for a background that shows it while the video does not. */
    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("-poster", PictureKind.url(((Value.Parts) value).text("poster"), address));
    }

    @Override
    public String words(Value value) {
        Value.Parts p = (Value.Parts) value;
        return p.text("src").isEmpty() ? Language.say("none") : film().words(Value.of(p.text("src")));
    }

    @Override
    public Value.Parts schema(Around around) {
        return CompositeKind.object(
                Value.parts("src", film().schema(around, FORMATS), "poster", poster.schema(around)));
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Value.parts("src", fields.apply(".src"), "poster", fields.apply(".poster")));
    }

    @Override
    public Map<String, String> fields(Value value) {
        Value.Parts p = (Value.Parts) value;
        return Map.of(".src", p.text("src"), ".poster", p.text("poster"));
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.SRC);
    }

    @Override
    public List<String> addresses() {
        return List.of("-poster");
    }
}
