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
        List<Offer> offers) {
    public ObjectLogic {
        formulas = List.copyOf(formulas);
        checks = List.copyOf(checks);
        rules = List.copyOf(rules);
        conditions = List.copyOf(conditions);
        offers = List.copyOf(offers);
    }

    /** Whether there is nothing to do but to check what is required. */
    public boolean isEmpty() {
        return formulas.isEmpty()
                && checks.isEmpty()
                && rules.isEmpty()
                && conditions.isEmpty()
                && offers.isEmpty();
    }
}
