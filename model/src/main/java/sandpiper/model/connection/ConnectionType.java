package sandpiper.model.connection;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.OutsideService;
import sandpiper.model.release.Release;

/**
 * An outside service whose values are used.
 *
 * @param describe what it gives, or {@code null}
 * @param setting the name by which an instance gives its address and credentials
 * @param contract the path of the document that describes it (OpenAPI)
 */
public record ConnectionType(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        String setting,
        String contract,
        List<LookupType> lookups,
        List<OutsideCallType> calls)
        implements OutsideService {
    public ConnectionType {
        lookups = List.copyOf(lookups);
        calls = List.copyOf(calls);
    }

    /** All of a release. */
    public static List<ConnectionType> of(Release release) {
        return release.connections().stream().map(ConnectionType.class::cast).toList();
    }

    /** The one of a name in a release, or nothing. */
    public static Optional<ConnectionType> find(Release release, String name) {
        return of(release).stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** The lookup of a name, or nothing. */
    public Optional<LookupType> lookup(String lookup) {
        return lookups.stream().filter(one -> one.name().equals(lookup)).findFirst();
    }

    @Override
    public List<OutsideCallType> functions() {
        return calls;
    }

    /** Every operation of the document that is used, as in {@code GET /currencies}, once. */
    public List<String> operations() {
        var all = new java.util.LinkedHashSet<String>();
        lookups.forEach(one -> {
            all.add(one.operation().written());
            var single = one.single();
            if (single != null) {
                all.add(single.written());
            }
        });
        calls.forEach(one -> all.add(one.operation().written()));
        return List.copyOf(all);
    }
}
