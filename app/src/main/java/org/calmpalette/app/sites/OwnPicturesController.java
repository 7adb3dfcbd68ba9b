package org.calmpalette.app.sites;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.PictureFile;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Limits;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;

/** Pictures that an owner brings, and the shelf that they stand on. */
@Controller
@RequestMapping("/sites/{slug}/pictures")
class OwnPicturesController {
    /** Pictures that are made fit at the same time. */
    private static final int AT_ONCE = 2;

    private static final Duration LONGEST_WAIT = Duration.ofSeconds(60);

    private final Semaphore turns = new Semaphore(AT_ONCE, true);
    private final SiteService sites;
    private final SiteUploads uploads;
    private final FrameAddresses addresses;
    private final Notices notices;

    OwnPicturesController(SiteService sites, SiteUploads uploads, FrameAddresses addresses, Notices notices) {
        this.sites = sites;
        this.uploads = uploads;
        this.addresses = addresses;
        this.notices = notices;
    }

    /**
     * @param told what was done to it, and how much room there is left
     * @param mark where one says what must stay in sight of it; empty where it lies behind nothing
     */
    record Brought(String path, String name, String address, String told, String mark) {}

    /**
     * @param key of the setting that it is for
     * @param field of its form, such as {@code v.picture}
     * @param x where the middle of what must stay is, 0 to 1 of the width
     * @param y likewise of the height
     */
    @PostMapping
    @ResponseBody
    Brought bring(
            @PathVariable String slug,
            @RequestParam MultipartFile file,
            @RequestParam String key,
            @RequestParam String field,
            @RequestParam(defaultValue = "0.5") double x,
            @RequestParam(defaultValue = "0.5") double y,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        SiteService.OpenSite open = sites.open(slug, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        PictureKind kind = asked(setting.kind(), field);
        String name = file.getOriginalFilename() == null ? "picture" : file.getOriginalFilename();
        if (file.isEmpty() || file.getSize() > PictureFile.LARGEST) {
            throw new BadInputException(
                    file.isEmpty()
                            ? Language.say("shelf.empty", name)
                            : Language.say("shelf.large", name, Limits.words(PictureFile.LARGEST)),
                    Language.say("shelf.other"));
        }
        SiteService.OwnUpload made = inTurn(() -> sites.bring(slug, kind, name, file.getBytes(), x, y, me));
        SiteUpload upload = made.upload();
        return new Brought(
                upload.path(),
                upload.name(),
                addresses.ofDraft(open.draft().id()) + Paths.address(upload.path()),
                Language.say("shelf.brought", upload.width(), upload.height(), String.join("; ", made.told())),
                field.endsWith(".picture") ? "/sites/" + slug + "/pictures#picture-" + upload.id() + "-mark" : "");
    }

    private interface Bringing {
        SiteService.OwnUpload done() throws IOException;
    }

    /** Files wait on the disk until their turn comes: all of them at once would not fit into memory. */
    private SiteService.OwnUpload inTurn(Bringing work) throws IOException {
        try {
            if (!turns.tryAcquire(LONGEST_WAIT.toMillis(), TimeUnit.MILLISECONDS)) {
                throw new BadInputException(Language.say("shelf.busy"), Language.say("shelf.busy.mend"));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("stopped while a picture waited", e);
        }
        try {
            return work.done();
        } finally {
            turns.release();
        }
    }

    /** The kind of picture that a field of a form asks for. */
    private static PictureKind asked(Kind kind, String field) {
        Kind at = kind;
        String[] steps = field.split("\\.");
        for (int i = 1; i < steps.length && at != null; i++) {
            if (at instanceof ItemsKind items) {
                ItemsKind.Part part = i + 1 < steps.length ? items.parts().get(steps[i + 1]) : null;
                at = part == null ? null : part.kind();
                i++;
            } else if (at instanceof BackgroundKind background) {
                at = background.parts().kinds().get(steps[i]);
            } else {
                at = at instanceof VideoKind video && steps[i].equals("poster") ? video.poster() : null;
            }
        }
        if (at instanceof PictureKind picture) {
            return picture;
        }
        throw new NotFoundException();
    }

    /** @param where the settings of the draft that show it, in words */
    public record OnShelf(SiteUpload upload, String address, String size, String where) {}

    @GetMapping
    String shelf(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        String base = addresses.ofDraft(open.draft().id());
        Function<SiteUpload, OnShelf> told = u -> new OnShelf(
                u, base + Paths.address(u.path()), Limits.words(u.size()), String.join(", ", shown(open, u.path())));
        model.addAttribute("open", open);
        model.addAttribute(
                "pictures", uploads.shelf(open.site().id()).stream().map(told).toList());
        model.addAttribute(
                "off", uploads.off(open.site().id()).stream().map(told).toList());
        model.addAttribute("taken", Limits.words(uploads.taken(open.site().id())));
        model.addAttribute("most", Language.say("size.mb", SiteUploads.MOST_BYTES / 1_000_000));
        return "sites/pictures";
    }

    private static List<String> shown(SiteService.OpenSite open, String path) {
        List<String> labels = new ArrayList<>();
        open.draft().choices().forEach((key, chosen) -> {
            if (Chosen.writeAll(Map.of(key, chosen)).contains(path)) {
                open.theme().palette().setting(key).map(Setting::label).ifPresent(labels::add);
            }
        });
        return labels;
    }

    @PostMapping("/{id}/subject")
    String mark(
            @PathVariable String slug,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String left,
            @RequestParam(defaultValue = "") String top,
            @RequestParam(defaultValue = "") String width,
            @RequestParam(defaultValue = "") String height,
            @RequestParam(defaultValue = "false") boolean remove,
            @AuthenticationPrincipal SignedIn me) {
        SiteUpload marked = sites.mark(slug, id, remove ? "" : String.join(" ", left, top, width, height), me);
        notices.done(Language.say(marked.subject().isPresent() ? "shelf.marked" : "shelf.unmarked", marked.name()));
        return "redirect:/sites/" + slug + "/pictures#picture-" + id;
    }

    @PostMapping("/{id}/remove")
    String remove(@PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        SiteUpload gone = sites.shelve(slug, id, false, me);
        notices.done(Language.say("shelf.taken-off", gone.name()));
        return "redirect:/sites/" + slug + "/pictures";
    }

    @PostMapping("/{id}/put-back")
    String putBack(@PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        SiteUpload back = sites.shelve(slug, id, true, me);
        notices.done(Language.say("shelf.back", back.name()));
        return "redirect:/sites/" + slug + "/pictures";
    }
}
