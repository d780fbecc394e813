/** Values that belong to an instance: {@link sandpiper.engine.settings.InstanceSettings}. */
@NullMarked
package sandpiper.engine.settings;

import org.jspecify.annotations.NullMarked;
