package org.calmpalette.app.themes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.intake.ThemeZip;
import org.calmpalette.core.page.Paths;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Reads themes in, in the background. */
@Service
public class ImportService {
    private static final Logger LOG = LoggerFactory.getLogger(ImportService.class);
    /** Processor time of one import. What the limits of files let through takes a few seconds. */
    private static final Duration LONGEST = Duration.ofMinutes(2);

    private static final int FILES_BETWEEN_REPORTS = 20;

    private final ImportJobRepository jobs;
    private final ThemeService themes;
    private final ContentStore store;
    private final TransactionTemplate transaction;
    private final Jobs work;
    private final Kept kept;
    /** Jobs of this node that have not ended. */
    private final Set<String> open = ConcurrentHashMap.newKeySet();

    ImportService(
            ImportJobRepository jobs,
            ThemeService themes,
            ContentStore store,
            TransactionTemplate transaction,
            Jobs work,
            Kept kept) {
        this.kept = kept;
        this.jobs = jobs;
        this.work = work;
        this.themes = themes;
        this.store = store;
        this.transaction = transaction;
    }

    /**
     * Starts to read a zip or a stylesheet.
     *
     * @param upload a file of the caller's that is deleted when it has been read
     * @param shownName the name it had with the person
     * @return id of the job
     */
    public String start(Path upload, String shownName, SignedIn me) {
        ImportJob job = jobs.save(new ImportJob(UUID.randomUUID().toString(), me.id(), shownName));
        open.add(job.id());
        work.<String>start(Jobs.Lane.IMPORTS, LONGEST, doing -> {
            run(doing, job.id(), upload, shownName, me);
            return job.id();
        });
        return job.id();
    }

    /** Says of all jobs here, those that wait too, that they are in somebody's hands. */
    @Scheduled(fixedDelay = 30, timeUnit = TimeUnit.SECONDS)
    void alive() {
        open.forEach(id -> update(id, ImportJob::alive));
    }

    /** Clears away what a kill left behind, and jobs that nobody looks at any more. */
    @Scheduled(initialDelay = 1, fixedDelay = 24 * 60, timeUnit = TimeUnit.MINUTES)
    void tidy() throws IOException {
        Instant old = Instant.now().minus(Duration.ofDays(1));
        try (Stream<Path> files = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            for (Path p : (Iterable<Path>)
                    files.filter(f -> f.getFileName().toString().matches("calm-(upload|own)-.*"))::iterator) {
                if (Files.getLastModifiedTime(p).toInstant().isBefore(old)) {
                    Files.deleteIfExists(p);
                }
            }
        }
        transaction.executeWithoutResult(s ->
                jobs.deleteByUpdatedAtBefore(LocalDateTime.now(ZoneOffset.UTC).minusDays(30)));
    }

    /** Forgets the jobs of somebody who leaves. */
    @Transactional
    public void forget(long account) {
        jobs.deleteByAccountId(account);
    }

    ImportJob job(String id, SignedIn me) {
        return jobs.findByIdAndAccountId(id, me.id()).orElseThrow(NotFoundException::new);
    }

    private void run(Job<String> doing, String jobId, Path upload, String shownName, SignedIn me) {
        try {
            update(jobId, job -> job.progress(0, 0, ""));
            StoredTheme theme = read(upload, shownName, me, (done, total, path) -> {
                doing.at(done, total, path);
                if (done % FILES_BETWEEN_REPORTS == 0 || done == total) {
                    update(jobId, job -> job.progress(done, total, path));
                }
            });
            update(jobId, job -> job.finish(theme.id()));
        } catch (BadInputException e) {
            update(jobId, job -> job.fail(e.getMessage(), e.mend()));
        } catch (IOException | RuntimeException | LinkageError | StackOverflowError e) {
            LOG.warn("reading {} failed", shownName, e);
            update(
                    jobId,
                    job -> job.fail(
                            "The theme could not be read because of a fault on our side.",
                            "Nothing was changed. The reason stands in the log of the application."));
        } finally {
            open.remove(jobId);
            try {
                Files.deleteIfExists(upload);
            } catch (IOException e) {
                LOG.warn("could not delete {}", upload, e);
            }
        }
    }

    private void update(String jobId, java.util.function.Consumer<ImportJob> change) {
        transaction.executeWithoutResult(s -> jobs.findById(jobId).ifPresent(change));
    }

    /** Reads a theme at once; what the background does, and what the demo and the starter theme use. */
    public StoredTheme read(Path upload, String shownName, SignedIn me, ThemeZip.Progress progress) throws IOException {
        SortedMap<String, TreeFiles.Entry> files = new TreeMap<>();
        SortedMap<String, byte[]> sheets = new TreeMap<>();
        Kept.Amount taken = kept.of(me.id());
        long[] room = {0};
        ThemeZip.Sink sink = (path, bytes) -> {
            // Before it is kept: what is brought in again and again without room leaves nothing behind.
            room[0] += bytes.length;
            Kept.admit(taken, room[0]);
            files.put(path, new TreeFiles.Entry(store.keep(bytes), bytes.length));
            if (Paths.isStylesheet(path) && sheets.isEmpty()) {
                sheets.put(path, bytes);
            }
        };
        String lower = shownName.toLowerCase(Locale.ROOT);
        String note;
        if (lower.endsWith(".zip") || !lower.endsWith(".css") && startsLikeZip(upload)) {
            ThemeZip.Report report = ThemeZip.read(upload, shownName, sink, progress);
            note = "Brought in from " + shownName + ", " + report.files() + (report.files() == 1 ? " file" : " files")
                    + (report.ignored().isEmpty() ? "" : "; passed over: " + String.join(", ", report.ignored()));
            if (files.keySet().stream().noneMatch(Paths::isPage)) {
                // Stylesheets without a page: without a specimen their colours could not be seen.
                String first = sheets.firstKey();
                sink.accept(Specimen.FILE, Specimen.page(Stylesheet.read(first, sheets.get(first))));
                note += "; with a specimen page for " + first;
            }
        } else if (lower.endsWith(".css")) {
            progress.at(0, 1, shownName);
            stylesheet(Files.readAllBytes(upload), plainName(shownName), sink);
            progress.at(1, 1, "");
            note = "Brought in from " + shownName + ", with a specimen page";
        } else {
            throw new BadInputException(
                    "“" + shownName + "” is neither a zip nor a stylesheet.",
                    "Choose a .zip with the theme's folder, or a .css file.");
        }
        return themes.create(shownName.replaceFirst("(?i)\\.(zip|css)$", ""), files, note, me);
    }

    private static boolean startsLikeZip(Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            return in.read() == 'P' && in.read() == 'K';
        }
    }

    private static String plainName(String shownName) {
        String name = shownName.substring(Math.max(shownName.lastIndexOf('/'), shownName.lastIndexOf('\\')) + 1);
        return name.replaceAll("[^\\p{L}\\p{N}._-]", "-");
    }

    private static void stylesheet(byte[] bytes, String name, ThemeZip.Sink sink) {
        SourceText text = SourceText.stylesheet(name, bytes);
        Stylesheet sheet = Stylesheet.read(text);
        if (sheet.rules().isEmpty()) {
            throw new BadInputException(
                    name + " holds no rule that a browser understands.",
                    sheet.faults().isEmpty()
                            ? "Choose a stylesheet with rules such as a { color: red }."
                            : "Line " + text.line(sheet.faults().get(0).offset()) + ": "
                                    + sheet.faults().get(0).kind().message() + " "
                                    + sheet.faults().get(0).kind().mend());
        }
        sink.accept(name, bytes);
        sink.accept(Specimen.FILE, Specimen.page(sheet));
    }
}
