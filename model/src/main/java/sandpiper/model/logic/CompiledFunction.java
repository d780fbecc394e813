package sandpiper.model.logic;

import sandpiper.logic.run.StepCode;
import sandpiper.model.release.ObjectFunctionType;

/** A function that can be run: its parameters are the names of its frame, in their order. */
public record CompiledFunction(ObjectFunctionType type, StepCode code) {}
