/**
 * What a value can be, as the language sees it. Objects come in through the interface {@link
 * sandpiper.logic.type.RecordType}, so that the language need not know where their definitions
 * live.
 */
@NullMarked
package sandpiper.logic.type;

import org.jspecify.annotations.NullMarked;
