/**
 * Commands on definitions, from files to a release: {@link sandpiper.cli.draft.CheckCommand},
 * {@link sandpiper.cli.draft.PushCommand}, {@link sandpiper.cli.draft.ReleaseCommand}.
 */
@NullMarked
package sandpiper.cli.draft;

import org.jspecify.annotations.NullMarked;
