package sandpiper.engine.command;

import sandpiper.logic.ProblemCode;

/**
 * One thing wrong with what was asked.
 *
 * @param path to the value; the whole when it is about the record
 * @param message a whole sentence for the one who entered it
 */
public record Fault(FaultPath path, ProblemCode code, String message) {}
