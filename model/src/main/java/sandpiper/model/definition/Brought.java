package sandpiper.model.definition;

import java.util.List;

/**
 * What packages bring besides definitions of data and logic.
 *
 * @param roles sets of grants that people are given
 * @param views ways to look at lists
 * @param seeds records, of each object at most once
 */
public record Brought(List<DeliveredRole> roles, List<DeliveredView> views, List<SeedFile> seeds) {
    /** Of packages that bring nothing more. */
    public static final Brought NOTHING = new Brought(List.of(), List.of(), List.of());

    public Brought {
        roles = List.copyOf(roles);
        views = List.copyOf(views);
        seeds = List.copyOf(seeds);
    }
}
