/**
 * The marina: what a newcomer meets first. {@link sandpiper.demo.Demo} brings packages, data and
 * sign-ins into an instance through its manage API, as anybody could. All names are made up.
 */
@NullMarked
package sandpiper.demo;

import org.jspecify.annotations.NullMarked;
