package sandpiper.server.config;

import java.nio.file.Files;
import java.nio.file.Path;
import sandpiper.engine.Engine;
import sandpiper.engine.port.StorageException;

/** Whether a start finds the data it is meant to find. */
final class DataFile {
    private static final String DEMO = "demo";

    private DataFile() {}

    /**
     * Beginning empty where there was something before would look like losing it.
     *
     * @param fresh whether an empty file is meant
     * @throws StorageException when the file is missing, but was there
     */
    static void requireExpected(Path data, boolean fresh) {
        boolean missing = !Files.exists(data);
        var sign = Path.of(data + ".key");
        if (missing && !fresh && Files.exists(sign)) {
            throw new StorageException(
                    "There is no data file %s, but there was one: its key %s is there. Restore it from a backup, or begin an empty one with serve --new."
                            .formatted(data, sign),
                    new IllegalStateException("missing"));
        }
    }

    /**
     * A demo marks its file, since everybody knows its passwords.
     *
     * @param meant whether a demo is meant
     * @throws StorageException when the file is a demo's and something else is meant
     */
    static void requireDemoMeant(Engine engine, boolean meant) {
        boolean empty = engine.accounts().users().all().isEmpty();
        var mark = engine.settings().get(DEMO, Boolean.toString(empty && meant));
        if (Boolean.parseBoolean(mark) && !meant) {
            engine.close();
            throw new StorageException(
                    "This data file was made by the demo, whose passwords everybody knows. Serve"
                            + " another file, or say --demo-data.",
                    new IllegalStateException(DEMO));
        }
    }
}
