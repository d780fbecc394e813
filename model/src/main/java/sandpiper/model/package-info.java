/**
 * What every part of the model shares: definition codes and diagnostics. The way in for definitions
 * is {@link sandpiper.model.check.Definitions}; what comes out is a {@link
 * sandpiper.model.release.Release}.
 */
@NullMarked
package sandpiper.model;

import org.jspecify.annotations.NullMarked;
