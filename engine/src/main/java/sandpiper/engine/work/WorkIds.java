package sandpiper.engine.work;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.util.UUID;

/** Public ids of records, traces and pieces of work. Safe for use by many threads. */
public final class WorkIds {
    /** Version 7 of RFC 9562: in the order of creation, so that their index grows at its end. */
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    private WorkIds() {}

    public static UUID next() {
        return IDS.generate();
    }
}
