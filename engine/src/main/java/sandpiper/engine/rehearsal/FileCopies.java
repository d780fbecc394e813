package sandpiper.engine.rehearsal;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.Engine;
import sandpiper.engine.port.Storage;

/** Copies in files beside the data file. */
public final class FileCopies implements Copies {
    private static final Logger LOG = LoggerFactory.getLogger(FileCopies.class);

    /** What the release, its log and its new tables need besides the copy. */
    private static final int TIMES_THE_DATA = 3;

    private final Engine engine;
    private final Path data;
    private final Function<Path, Storage> opener;

    /**
     * Makes none yet.
     *
     * @param data the file of the live data
     * @param opener opens a copy, which is closed with what it gives
     */
    public FileCopies(Engine engine, Path data, Function<Path, Storage> opener) {
        this.engine = engine;
        this.data = data;
        this.opener = opener;
    }

    private Path file(Which which) {
        var end = which == Which.REHEARSED ? ".rehearsal" : ".before";
        return data.resolveSibling(data.getFileName() + end);
    }

    @Override
    public void requireRoom(boolean both) {
        try {
            // Replaying needs another copy, which grows only by what is played.
            int times = both ? TIMES_THE_DATA + 1 : TIMES_THE_DATA;
            long needed = times * Files.size(data);
            long free = Files.getFileStore(data).getUsableSpace();
            if (free < needed) {
                throw new RehearsalException(
                        "A rehearsal needs %,d MB beside the data, and %,d MB are free."
                                .formatted(needed >> 20, free >> 20));
            }
        } catch (IOException e) {
            throw new RehearsalException(
                    "Whether there is room for a copy cannot be told: %s"
                            .formatted(e.getMessage()));
        }
    }

    @Override
    public long make() {
        try {
            engine.backUp(file(Which.REHEARSED));
            return Files.size(file(Which.REHEARSED));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void makeBefore() {
        try {
            Files.copy(
                    file(Which.REHEARSED), file(Which.BEFORE), StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public Storage open() {
        return opener.apply(file(Which.REHEARSED));
    }

    @Override
    public String place(Which which) {
        return file(which).toString();
    }

    @Override
    public void remove(Which which) {
        for (var end : new String[] {"", "-wal", "-shm", ".lock", "-journal"}) {
            var file = file(which) + end;
            try {
                Files.deleteIfExists(Path.of(file));
            } catch (IOException e) {
                LOG.warn("{} of a rehearsal could not be removed", file, e);
            }
        }
    }
}
