/**
 * A PostgreSQL database, or another engine of its protocol: its connections, its dialect, and its
 * failures in words. Start at {@link sandpiper.store.postgres.PostgresDatabase}. Used are ordinary
 * tables, identity columns, unique indexes, foreign keys, serialisable transactions, savepoints,
 * {@code for update skip locked} and {@code returning}; nothing that belongs to PostgreSQL alone,
 * such as advisory locks, triggers, extensions or listening.
 */
@NullMarked
package sandpiper.store.postgres;

import org.jspecify.annotations.NullMarked;
