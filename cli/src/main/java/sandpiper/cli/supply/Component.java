package sandpiper.cli.supply;

import java.util.List;

/**
 * A library that is part of the distribution.
 *
 * @param ecosystem {@code Maven} or {@code npm}, as the OSV schema writes it
 * @param name {@code group:artifact}, or the name of an npm package
 * @param licences by which it may be used, whichever is chosen; SPDX ids where there are such
 */
public record Component(String ecosystem, String name, String version, List<String> licences) {
    public Component {
        licences = List.copyOf(licences);
    }
}
