/**
 * Conditions taken apart into field, operator and value, for whoever puts them together without
 * writing them. What cannot be taken apart stays text; what is put together again means the same.
 */
@NullMarked
package sandpiper.logic.outline;

import org.jspecify.annotations.NullMarked;
