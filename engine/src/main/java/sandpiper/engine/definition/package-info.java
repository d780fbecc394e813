/**
 * From files to what is served: {@link sandpiper.engine.definition.Drafts} keeps the files being
 * edited, {@link sandpiper.engine.definition.Releases} turns them into a release.
 */
@NullMarked
package sandpiper.engine.definition;

import org.jspecify.annotations.NullMarked;
