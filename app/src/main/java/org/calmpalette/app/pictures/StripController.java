package org.calmpalette.app.pictures;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.PictureChange;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.picture.Strip;
import org.calmpalette.core.setting.ColorKind;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Draws a strip: a gradient or lines, one or a few pixels thick, with its weight and the CSS gradient that shows the same. */
@Controller
@RequestMapping("/themes/{id}/pictures/strip")
class StripController {
    private final ThemeService themes;
    private final Notices notices;

    StripController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /** What is asked for, as the form has it; what is missing is as in a new one. */
    public record Wanted(
            String draw,
            String direction,
            String first,
            String middle,
            String last,
            String length,
            String thick,
            String across,
            String ground,
            String name) {
        public Wanted {
            draw = or(draw, "gradient");
            direction = or(direction, "down");
            first = or(first, "#203850");
            middle = or(middle, "");
            last = or(last, "#d8e2ec");
            length = or(length, "120");
            thick = or(thick, "1");
            across = or(across, "1");
            ground = or(ground, "#ffffff");
            name = or(name, "strip.png");
        }

        private static String or(String text, String other) {
            return text == null || text.isBlank() ? other : text.strip();
        }

        Strip strip() {
            boolean down = !direction.equals("right");
            int px = whole("length", length);
            int wide = whole("thickness", across);
            if (draw.equals("lines")) {
                return Strip.lines(down, px, whole("line", thick), wide, ColorKind.parse(first), ColorKind.parse(last));
            }
            List<Color> colors = new ArrayList<>();
            Stream.of(first, middle, last).filter(c -> !c.isEmpty()).forEach(c -> colors.add(ColorKind.parse(c)));
            return Strip.gradient(down, px, wide, colors);
        }

        private static int whole(String field, String text) {
            if (!text.matches("\\d{1,5}")) {
                throw new BadInputException("The " + field + " is no whole number.", "Write pixels, such as 120.");
            }
            return Integer.parseInt(text);
        }
    }

    @GetMapping
    String view(@PathVariable long id, Wanted wanted, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), wanted, model);
        return "pictures/strip";
    }

    @GetMapping("/preview")
    String preview(@PathVariable long id, Wanted wanted, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), wanted, model);
        return "pictures/strip :: drawn";
    }

    private static void fill(OpenTheme open, Wanted wanted, Model model) {
        model.addAttribute("open", open);
        model.addAttribute("w", wanted);
        try {
            Strip strip = wanted.strip();
            ColorKind.parse(wanted.ground());
            String css = strip.css();
            model.addAttribute("strip", strip);
            model.addAttribute("css", css);
            model.addAttribute("weight", PicturesController.weight(strip.png().length));
            model.addAttribute("cssWeight", PicturesController.weight(css.getBytes(StandardCharsets.UTF_8).length));
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage() + " " + e.mend());
        }
    }

    @GetMapping("/image")
    ResponseEntity<byte[]> image(@PathVariable long id, Wanted wanted, @AuthenticationPrincipal SignedIn me) {
        themes.stored(id, me);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .header("X-Content-Type-Options", "nosniff")
                .body(wanted.strip().png());
    }

    @PostMapping
    String keep(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            Wanted wanted,
            @AuthenticationPrincipal SignedIn me) {
        String name = wanted.name().toLowerCase(java.util.Locale.ROOT).endsWith(".png")
                ? wanted.name()
                : wanted.name() + ".png";
        Snapshot made = themes.change(
                id,
                base,
                me,
                theme -> PictureChange.added(theme, name, wanted.strip().png()));
        notices.done(made.note());
        return Go.to(PicturesController.address(id, made.note().replaceFirst("^Added the picture ", "")));
    }
}
