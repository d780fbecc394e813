package sandpiper.model.release;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Names;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.LogicText;

/**
 * One object as a service shows it.
 *
 * @param describe what it is, for the contract, or {@code null}
 * @param trees the fields of each operation it offers; {@link Operation#REMOVE} has an empty tree
 * @param filterable what a caller may filter by
 * @param filterableItems fields of line items by which a caller may filter, asking for some or
 *     every one of a record
 * @param sortable what a caller may sort by
 * @param calls transitions and functions that a caller may call on a record
 * @param where a condition that records it shows meet; others are not there; {@code null} for all
 * @param presets values that every record created through it has
 * @param versioned whether a change must say which version of the record it is based on
 */
public record ResourceType(
        String name,
        ObjectType object,
        @Nullable String describe,
        Map<Operation, FieldTree> trees,
        List<FieldPath> filterable,
        List<FieldTree.PartTree> filterableItems,
        List<FieldPath> sortable,
        List<CallType> calls,
        @Nullable LogicText where,
        Map<Field, DefaultValue> presets,
        boolean versioned) {
    public ResourceType {
        presets = Map.copyOf(presets);
        calls = List.copyOf(calls);
        trees = Map.copyOf(trees);
        filterable = List.copyOf(filterable);
        filterableItems = List.copyOf(filterableItems);
        sortable = List.copyOf(sortable);
    }

    /** What can be asked of a resource. */
    public enum Operation {
        CREATE,
        READ,
        UPDATE,
        QUERY,
        REMOVE
    }

    public boolean offers(Operation operation) {
        return trees.containsKey(operation);
    }

    /** The fields of an operation, or nothing when it is not offered. */
    public Optional<FieldTree> tree(Operation operation) {
        return Optional.ofNullable(trees.get(operation));
    }

    /** Whether a caller may filter at all. */
    public boolean isFilterable() {
        return !filterable.isEmpty() || !filterableItems.isEmpty();
    }

    /** All that a caller may filter by: {@code vessel.name}, {@code charges.tariff}. */
    public List<String> filterNames() {
        return Stream.concat(
                        filterable.stream().map(FieldPath::written),
                        filterableItems.stream()
                                .flatMap(items ->
                                        items.paths().stream()
                                                .map(path ->
                                                        items.part().name()
                                                                + "."
                                                                + path.written())))
                .toList();
    }

    /** The call of a name in addresses ({@code check-in}), or nothing. */
    public Optional<CallType> call(String address) {
        return calls.stream().filter(one -> Names.address(one.name()).equals(address)).findFirst();
    }

    /**
     * What a changed record is answered with: as it is read, or as it was written where it cannot
     * be read.
     */
    public FieldTree answerTree() {
        return tree(Operation.READ)
                .or(() -> tree(Operation.QUERY))
                .or(() -> tree(Operation.UPDATE))
                .or(() -> tree(Operation.CREATE))
                .orElseGet(() -> FieldTree.EMPTY);
    }
}
