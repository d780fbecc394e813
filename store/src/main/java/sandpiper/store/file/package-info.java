/** The data file as a file: who holds it, whose it is, and whether it is still the one. */
@NullMarked
package sandpiper.store.file;

import org.jspecify.annotations.NullMarked;
