package org.calmpalette.app.pictures;

import jakarta.servlet.http.HttpServletRequest;
import java.math.BigDecimal;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.PictureChange;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.theme.Theme;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** One picture in other colours, or cut to a slot: side by side with what it is, then kept. */
@Controller
@RequestMapping("/themes/{id}/pictures/edit")
class PictureEditController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    PictureEditController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** What is asked for, as the forms have it. */
    public record Wanted(
            String picture,
            String edit,
            String way,
            String color,
            String light,
            String amount,
            String width,
            String height,
            String band) {
        PictureEdit edit(Theme theme) {
            if ("fit".equals(edit)) {
                Subject s = theme.palette().subject(picture).orElse(null);
                return new PictureEdit.Fitted(
                        whole("width", width),
                        whole("height", height),
                        s == null ? 0.5 : middle(s.left(), s.width()),
                        s == null ? 0.5 : middle(s.top(), s.height()));
            }
            double strength;
            try {
                strength = Double.parseDouble(or(amount, "50"));
            } catch (NumberFormatException e) {
                throw new BadInputException("“" + amount + "” is no number.", "Write one such as 50.");
            }
            return new PictureEdit.Recolored(new Tint(
                    Tint.Way.of(or(way, "color")),
                    ColorKind.parse(or(color, "#2b8a3e")),
                    ColorKind.parse(or(light, "#ffffff")),
                    strength));
        }

        private static String or(String text, String other) {
            return text == null || text.isBlank() ? other : text.strip();
        }

        private static double middle(BigDecimal start, BigDecimal size) {
            return (start.doubleValue() + size.doubleValue() / 2) / 100;
        }

        private static int whole(String field, String text) {
            if (text == null || !text.strip().matches("\\d{1,5}")) {
                throw new BadInputException(
                        "The " + field + " of the slot is missing or no whole number.", "Write pixels, such as 1200.");
            }
            return Integer.parseInt(text.strip());
        }
    }

    @GetMapping
    String preview(
            @PathVariable long id,
            Wanted wanted,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        picture(open, wanted);
        model.addAttribute("open", open);
        model.addAttribute("address", addresses.ofSnapshot(open.head().id()) + Paths.address(wanted.picture()));
        try {
            byte[] edited = edited(open, wanted);
            model.addAttribute("before", about(open.theme().files().read(wanted.picture())));
            model.addAttribute("after", about(edited));
            // The picture is asked for in the words of the preview.
            model.addAttribute("then", "/themes/" + id + "/pictures/edit/image?" + request.getQueryString());
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage() + " " + e.mend());
        }
        return "pictures/lighter";
    }

    private static String about(byte[] bytes) {
        return PictureSize.read(bytes)
                        .map(z -> z.width() + " by " + z.height() + ", ")
                        .orElse("")
                + PicturesController.weight(bytes.length);
    }

    private static String picture(OpenTheme open, Wanted wanted) {
        if (wanted.picture() == null || !open.theme().pictures().contains(wanted.picture())) {
            throw new NotFoundException();
        }
        return wanted.picture();
    }

    private static byte[] edited(OpenTheme open, Wanted wanted) {
        String path = picture(open, wanted);
        PictureEdit edit = wanted.edit(open.theme());
        return open.read()
                .derived(
                        List.of("edited", path, edit),
                        () -> Lighter.edited(path, open.theme().files().read(path), edit));
    }

    @PostMapping
    String keep(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            Wanted wanted,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            PictureEdit edit = wanted.edit(theme);
            return edit instanceof PictureEdit.Fitted fitted
                            && !Wanted.or(wanted.band(), "").isEmpty()
                    ? PictureChange.cutFor(theme, wanted.picture(), wanted.band(), fitted)
                    : PictureChange.edited(theme, wanted.picture(), edit);
        });
        notices.done(made.note());
        return Go.to(PicturesController.address(id, wanted.picture()));
    }

    @GetMapping("/image")
    ResponseEntity<byte[]> image(@PathVariable long id, Wanted wanted, @AuthenticationPrincipal SignedIn me) {
        return RecolorController.changed(wanted.picture(), edited(themes.open(id, me), wanted));
    }
}
