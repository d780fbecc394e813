package sandpiper.server.service;

import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;

/**
 * A reference behind which only some fields can be named.
 *
 * @param whole the reference itself
 * @param type the record it leads to, with the members that can be named
 */
public record NarrowedReference(Member whole, LogicType type) implements Member {
    @Override
    public String name() {
        return whole.name();
    }

    @Override
    public boolean mayBeEmpty() {
        return whole.mayBeEmpty();
    }

    @Override
    public String describe() {
        return whole.describe();
    }
}
