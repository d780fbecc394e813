package sandpiper.e2e;

import java.io.File;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * What a JVM learns while a service starts, kept for the services that are started after it, which
 * then take a third of the time (JEP 514). There is one for a build, made by the first process that
 * needs it; until it is there the others start as they are.
 */
final class StartCache {
    private static final Path CACHE = Path.of("target", "service.aot").toAbsolutePath();

    /** Seconds for a service to end and for the JVM to write down what it learnt. */
    private static final int PATIENCE = 180;

    /** A JVM that cannot make one is not asked again and again. */
    private static final AtomicBoolean TRIED = new AtomicBoolean();

    private StartCache() {}

    /** How a JVM is started that runs the service. */
    static List<String> options() throws IOException {
        var entries =
                Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                        .map(Path::of)
                        .toList();
        var folders = entries.stream().filter(Files::isDirectory).toList();
        // A cache is of jars; while somebody works on a module its classes lie in a folder.
        if (!folders.stream().allMatch(one -> one.toAbsolutePath().startsWith(CACHE.getParent()))) {
            return List.of("-cp", System.getProperty("java.class.path"));
        }
        var jars =
                String.join(
                        File.pathSeparator,
                        entries.stream().filter(Files::isRegularFile).map(Path::toString).toList());
        make(jars);
        var options = new ArrayList<>(List.of("-cp", jars));
        if (Files.exists(CACHE)) {
            options.addAll(List.of("-XX:AOTCache=" + CACHE, "-Xlog:aot*=off", "-Xlog:cds*=off"));
        }
        return options;
    }

    /** Makes it, unless it is there or somebody else makes it just now. */
    private static void make(String jars) throws IOException {
        try (var file =
                        FileChannel.open(
                                CACHE.resolveSibling("service.aot.lock"),
                                StandardOpenOption.CREATE,
                                StandardOpenOption.WRITE);
                var lock = file.tryLock()) {
            if (lock == null || Files.exists(CACHE) || !TRIED.compareAndSet(false, true)) {
                return;
            }
            var fresh = CACHE.resolveSibling("fresh.aot");
            var folder = Files.createTempDirectory("sandpiper-start");
            try (var service =
                    ServiceProcess.start(
                            folder.resolve("data.db").toString(),
                            List.of("-cp", jars, "-Xlog:disable", "-XX:AOTCacheOutput=" + fresh),
                            Map.of())) {
                service.stop(PATIENCE);
            }
            if (Files.exists(fresh)) {
                Files.move(fresh, CACHE);
            }
        } catch (OverlappingFileLockException _) {
            // another thread of this process makes it
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
