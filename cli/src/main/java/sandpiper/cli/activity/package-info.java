/**
 * Commands that look at what a service does: {@link sandpiper.cli.activity.StatusCommand} first.
 */
@NullMarked
package sandpiper.cli.activity;

import org.jspecify.annotations.NullMarked;
