package sandpiper.server.service;

import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;

/**
 * A reference, or line items, of which only some fields can be named.
 *
 * @param whole the reference itself, or the line items
 * @param type the record it leads to, or the list of them, with the members that can be named
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
