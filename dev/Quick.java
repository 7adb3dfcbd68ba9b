import java.io.File;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardWatchEventKinds;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.eclipse.jdt.core.compiler.batch.BatchCompiler;

/**
 * Compiles the sources of modules as they are, with a compiler that needs seconds, into {@code target/quick/MODULE/target}; what is packed and handed out is compiled by Maven and javac. Started by {@code ./calm} from its
 * source:
 *
 * <ul>
 *   <li>{@code compile MODULE…}: once, tests too;
 *   <li>{@code unused MODULE…}: writes nothing, and tells what nothing uses as a fault;
 *   <li>{@code watch MODULE…}: without tests, again whenever a source has been saved; the file {@code .restart} tells the application.
 * </ul>
 */
class Quick {
    private static final Path OUT = Path.of("target/quick");
    /** An editor saves in several steps, and several files are saved at once. */
    private static final long QUIET_MS = 120;

    public static void main(String[] args) throws Exception {
        List<String> modules = List.of(args).subList(1, args.length);
        switch (args[0]) {
            case "compile" -> System.exit(compiled(modules, true, false) ? 0 : 1);
            case "unused" -> System.exit(compiled(modules, true, true) ? 0 : 1);
            case "watch" -> watch(modules);
            default -> throw new IllegalArgumentException(args[0]);
        }
    }

    private static boolean compiled(List<String> modules, boolean tests, boolean unused) throws IOException {
        List<String> before = new ArrayList<>();
        for (String kind : tests ? List.of("main", "test") : List.of("main")) {
            for (String module : modules) {
                Path sources = Path.of(module, "src", kind, "java");
                if (!Files.isDirectory(sources)) {
                    continue;
                }
                // As Maven has them, so that what tells tests by their folder finds them.
                Path out = OUT.resolve((unused ? "unused-" : "") + module)
                        .resolve("target")
                        .resolve(kind.equals("main") ? "classes" : "test-classes");
                // Of a source that is gone no class may stay.
                Path fresh = Path.of(out + ".new");
                Files.createDirectories(out.getParent());
                gone(fresh);
                List<String> arguments = new ArrayList<>(List.of("--release", "17", "-proc:none", "-parameters", "-g"));
                arguments.addAll(
                        unused
                                ? List.of("-enableJavadoc", "-warn:unusedImport,unusedLocal,unusedPrivate", "-failOnWarning")
                                : List.of("-nowarn"));
                String libraries = "";
                for (String each : List.of("app", "cli", "core")) {
                    libraries += Files.readString(OUT.resolve(each + ".classpath")).strip() + File.pathSeparator;
                }
                arguments.addAll(List.of(
                        "-cp",
                        String.join(File.pathSeparator, before) + File.pathSeparator + libraries,
                        "-d",
                        fresh.toString(),
                        sources.toString()));
                PrintWriter said = new PrintWriter(System.err, true);
                if (!BatchCompiler.compile(arguments.toArray(String[]::new), said, said, null)) {
                    gone(fresh);
                    return false;
                }
                gone(out);
                Files.move(fresh, out);
                before.add(out.toString());
            }
        }
        return true;
    }

    private static void gone(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path p : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(p);
                }
            }
        }
    }

    private static void watch(List<String> modules) throws Exception {
        WatchService changes = FileSystems.getDefault().newWatchService();
        Map<WatchKey, Path> watched = new LinkedHashMap<>();
        for (String module : modules) {
            look(changes, watched, Path.of(module, "src/main/java"));
        }
        // The first time a compiler is slow: that is now, while the application starts.
        compiled(modules, false, true);
        while (true) {
            WatchKey key = changes.take();
            boolean sources = false;
            do {
                for (var event : key.pollEvents()) {
                    Path folder = watched.get(key);
                    Path file = event.context() instanceof Path p ? folder.resolve(p) : folder;
                    sources |= file.toString().endsWith(".java");
                    if (Files.isDirectory(file)) {
                        look(changes, watched, file);
                        sources = true;
                    }
                }
                key.reset();
                key = changes.poll(QUIET_MS, TimeUnit.MILLISECONDS);
            } while (key != null);
            if (!sources) {
                continue;
            }
            long began = System.nanoTime();
            if (compiled(modules, false, false)) {
                System.out.printf("Compiled in %.1f s, starting again …%n", (System.nanoTime() - began) / 1e9);
                Files.writeString(OUT.resolve(modules.get(modules.size() - 1)).resolve("target/classes/.restart"), "" + began);
            } else {
                System.out.println("Not compiled; the application runs on as it was.");
            }
        }
    }

    private static void look(WatchService changes, Map<WatchKey, Path> watched, Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path p : all.filter(Files::isDirectory).toList()) {
                watched.put(
                        p.register(
                                changes,
                                StandardWatchEventKinds.ENTRY_CREATE,
                                StandardWatchEventKinds.ENTRY_MODIFY,
                                StandardWatchEventKinds.ENTRY_DELETE),
                        p);
            }
        }
    }
}
