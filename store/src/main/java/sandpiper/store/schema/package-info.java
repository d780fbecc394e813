/**
 * The tables: those of the service itself ({@link sandpiper.store.schema.SystemTables}), and those
 * that follow a release ({@link sandpiper.store.schema.SchemaChanger}).
 */
@NullMarked
package sandpiper.store.schema;

import org.jspecify.annotations.NullMarked;
