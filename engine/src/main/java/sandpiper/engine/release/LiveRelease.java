package sandpiper.engine.release;

import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.RecordStorage;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.Release;

/**
 * The release that is served now. Immutable; a new release is a new one of these, put in place in
 * one step.
 *
 * @param number 0 before the first release
 */
public record LiveRelease(
        int number,
        Release release,
        ReleaseLogic logic,
        RecordStorage records,
        HistoryStorage history) {}
