package sandpiper.engine.command;

import java.util.List;
import sandpiper.logic.ProblemCode;

/**
 * One thing wrong with what was asked.
 *
 * @param path to the value: names of fields, and for line items the place from 0, as in {@code
 *     charges, 0, tariff}; empty when it is about the record as a whole
 * @param message a whole sentence for the one who entered it
 */
public record Fault(List<Object> path, ProblemCode code, String message) {
    public Fault {
        path = List.copyOf(path);
    }
}
