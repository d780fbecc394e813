/**
 * How records of an object are laid out for people: the sections of its form and the columns of its
 * lists. No contract depends on it.
 */
@NullMarked
package sandpiper.model.layout;

import org.jspecify.annotations.NullMarked;
