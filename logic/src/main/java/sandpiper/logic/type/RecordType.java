package sandpiper.logic.type;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The members an expression may name. Implemented by whoever has fields: an object, its line items,
 * or a service's view of one.
 */
public interface RecordType {
    /** The object's name as the consultant wrote it. */
    String name();

    /** A member, or nothing when there is none of that name. */
    Optional<Member> member(String member);

    /** Every name {@link #member} knows, in the order people are shown them. */
    Collection<String> memberNames();

    /**
     * The single text-like member that identifies a record, so that a reference can be compared
     * with text.
     */
    Optional<String> keyMember();

    /** The members of the key, in their order; empty when there is none. */
    default List<String> keyMembers() {
        return keyMember().stream().toList();
    }

    /**
     * The values, as the language has them, that the members of the key must have when a text is
     * the key of several members, in their order; nothing when the key is none of several or the
     * text is none.
     */
    default Optional<Map<String, Object>> keyValues(String text) {
        return Optional.empty();
    }

    /** Names of the transitions in its lifecycle; empty when it has none. */
    default List<String> transitions() {
        return List.of();
    }

    /** A function of the object, or nothing when there is none of that name. */
    default Optional<FunctionType> function(String name) {
        return Optional.empty();
    }

    /** Every name {@link #function} knows. */
    default List<String> functionNames() {
        return List.of();
    }

    /** The same members under the same names, for messages. */
    default List<String> sortedMemberNames() {
        return memberNames().stream().sorted().toList();
    }
}
