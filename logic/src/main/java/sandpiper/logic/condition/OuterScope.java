package sandpiper.logic.condition;

import java.util.Set;

/**
 * What stands around a condition that is brought down.
 *
 * @param ownSlots see {@link BoundInput#ownSlots}
 * @param foreign places of records around it, of which no value can be known beforehand
 * @param depth how many formulas it stands in
 * @param items whether line items may be asked for: of records that are looked for, but not of
 *     those that are counted, since nobody would notice that a line item of one has changed
 */
record OuterScope(int ownSlots, Set<Integer> foreign, int depth, boolean items) {
    static final OuterScope NONE = new OuterScope(0, Set.of(), 0, false);

    /** Around a condition that records are looked for by. */
    static final OuterScope OF_SEARCH = new OuterScope(0, Set.of(), 0, true);

    /** Formulas within formulas that are followed; more only come of a circle. */
    static final int DEEPEST = 20;
}
