/**
 * Definitions on their way to a release: {@link sandpiper.server.manage.draft.DraftController} has
 * the files, {@link sandpiper.server.manage.draft.ModelController} what they come to.
 */
@NullMarked
package sandpiper.server.manage.draft;

import org.jspecify.annotations.NullMarked;
