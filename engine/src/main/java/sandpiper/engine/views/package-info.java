/** Views of lists that people keep by name: {@link sandpiper.engine.views.NamedViews}. */
@NullMarked
package sandpiper.engine.views;

import org.jspecify.annotations.NullMarked;
