package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.StepCode;
import sandpiper.model.definition.RuleDefinition;

/** A rule that can be run; {@code when} is {@code null} for always. */
public record CompiledRule(RuleDefinition definition, @Nullable Code when, StepCode then) {}
