/**
 * The built-in functions of FEEL, DMN 1.5 §10.3.4, each with its parameters, what it does in a
 * sentence, and examples. Start at {@link sandpiper.logic.function.Builtins}; the type checker, the
 * compiler, completion, hover and the guide's reference all read the same table.
 *
 * <p>A call that cannot be worked out comes to null and leaves a note that says why.
 */
@NullMarked
package sandpiper.logic.function;

import org.jspecify.annotations.NullMarked;
