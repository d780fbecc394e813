/**
 * Records as people see them: {@link sandpiper.server.manage.record.RecordController}, and trials
 * of forms and functions.
 */
@NullMarked
package sandpiper.server.manage.record;

import org.jspecify.annotations.NullMarked;
