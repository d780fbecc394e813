/** Reading and writing records. Start at {@link sandpiper.store.record.SqlRecords}. */
@NullMarked
package sandpiper.store.record;

import org.jspecify.annotations.NullMarked;
