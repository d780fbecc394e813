/** What a service does and how it is: {@link sandpiper.server.manage.activity.StatusController}. */
@NullMarked
package sandpiper.server.manage.activity;

import org.jspecify.annotations.NullMarked;
