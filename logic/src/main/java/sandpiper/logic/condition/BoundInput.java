package sandpiper.logic.condition;

import sandpiper.logic.term.Term;

/**
 * A value that must be worked out before a condition can be asked.
 *
 * @param ownSlots how many places its frame needs when it stands in a text of its own, the formula
 *     of a field; 0 when it uses the frame of the text the condition stands in
 */
public record BoundInput(Term term, int ownSlots) {}
