package sandpiper.logic.condition;

import java.util.Set;

/**
 * What stands around a condition that is brought down.
 *
 * @param ownSlots see {@link BoundInput#ownSlots}
 * @param foreign places of records around it, of which no value can be known beforehand
 * @param depth how many formulas it stands in
 */
record OuterScope(int ownSlots, Set<Integer> foreign, int depth) {
    static final OuterScope NONE = new OuterScope(0, Set.of(), 0);

    /** Formulas within formulas that are followed; more only come of a circle. */
    static final int DEEPEST = 20;
}
