/** A definition file as those who read it see it: {@link sandpiper.model.source.Source}. */
@NullMarked
package sandpiper.model.source;

import org.jspecify.annotations.NullMarked;
