/**
 * One layer of bounded input: whatever comes from outside passes here before anything is parsed,
 * kept or run. Addresses are well formed, bodies are of a size, arrive in time and are in memory
 * within a sum; who does not say who asks gets little of each.
 */
@NullMarked
package sandpiper.server.intake;

import org.jspecify.annotations.NullMarked;
