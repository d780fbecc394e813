package sandpiper.logic.value;

import sandpiper.logic.type.Member;

/** A record as logic reads it. Two of them are equal when they are the same record. */
public interface RecordValue {
    /** The value of a member; {@link Nothing#NULL} when it is empty. */
    Object read(Member member);

    /** The value of the member with this name; {@link Nothing#NULL} when there is none. */
    Object read(String member);

    /** Name of its object. */
    String object();

    /** What people recognise the record by: its key. */
    String written();

    /** Its number in the store; below 0 when it is not stored yet. */
    long number();
}
