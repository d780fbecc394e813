package sandpiper.logic.run;

import sandpiper.logic.check.NameContext;
import sandpiper.logic.value.RecordValue;

/** One compiled term. */
@FunctionalInterface
interface Op {
    Object eval(Frame frame);

    /** Runs in a frame in which nothing stands but the record. */
    default Object about(RecordValue record, Evaluation run, int places) {
        var frame = new Frame(places, run);
        frame.set(NameContext.THIS, record);
        return eval(frame);
    }
}
