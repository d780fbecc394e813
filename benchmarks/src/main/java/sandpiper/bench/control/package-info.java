/**
 * The service one would write by hand for stays with charges: Spring Boot, jOOQ and SQLite, with
 * the same tables, checks, history and durability. It is what Sandpiper is measured against.
 */
@NullMarked
package sandpiper.bench.control;

import org.jspecify.annotations.NullMarked;
