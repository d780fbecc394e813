package sandpiper.model.logic;

import java.util.List;
import sandpiper.model.release.ObjectType;

/** The logic of one object. */
public record ObjectLogic(
        ObjectType object,
        List<Formula> formulas,
        List<CompiledCheck> checks,
        List<CompiledRule> rules,
        List<FieldCondition> conditions,
        List<PartCondition> partConditions,
        List<Offer> offers,
        List<CompiledFunction> functions,
        List<CompiledHandler> handlers,
        List<CompiledSchedule> schedules) {
    public ObjectLogic {
        formulas = List.copyOf(formulas);
        checks = List.copyOf(checks);
        rules = List.copyOf(rules);
        conditions = List.copyOf(conditions);
        offers = List.copyOf(offers);
        partConditions = List.copyOf(partConditions);
        functions = List.copyOf(functions);
        handlers = List.copyOf(handlers);
        schedules = List.copyOf(schedules);
    }

    /** The function of a name that the checker knows to be there. */
    public CompiledFunction function(String name) {
        return functions.stream()
                .filter(one -> one.type().name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** Whether there is nothing to do but to check what is required. */
    public boolean isEmpty() {
        return formulas.isEmpty()
                && checks.isEmpty()
                && rules.isEmpty()
                && conditions.isEmpty()
                && partConditions.isEmpty()
                && offers.isEmpty();
    }
}
