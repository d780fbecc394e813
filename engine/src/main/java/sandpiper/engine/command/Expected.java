package sandpiper.engine.command;

import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What a caller says of the record it means, and without which nothing shall be done (RFC 9110
 * §13.1).
 */
public sealed interface Expected {
    /** It has one of these versions; with none of them it never has. */
    record Versions(Set<Long> versions) implements Expected {
        public Versions {
            versions = Set.copyOf(versions);
        }

        @Override
        public String toString() {
            return versions.stream()
                    .sorted()
                    .map(String::valueOf)
                    .collect(Collectors.joining(" or "));
        }
    }

    /** It is there, in whatever version. */
    record There() implements Expected {}

    /** There is none yet. */
    record Absent() implements Expected {}

    /** One version, or nothing when none is given. */
    static @Nullable Expected version(@Nullable Long version) {
        return version == null ? null : new Versions(Set.of(version));
    }
}
