/** What tests of all modules have in common: {@link sandpiper.testing.HouseRules}. */
@NullMarked
package sandpiper.testing;

import org.jspecify.annotations.NullMarked;
