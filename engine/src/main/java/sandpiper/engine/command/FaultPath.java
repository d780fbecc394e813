package sandpiper.engine.command;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The place of a value in what was sent, whatever the notation: names of members and, inside of
 * lists, places from 0, as in {@code charges, 0, tariff}. Immutable.
 *
 * @param steps from the outside in; empty for the whole
 */
public record FaultPath(List<Step> steps) {
    /** The whole of what was sent. */
    public static final FaultPath WHOLE = new FaultPath(List.of());

    /** One step inwards. */
    public sealed interface Step {
        /** Into a member of a name. */
        record Name(String name) implements Step {
            @Override
            public String toString() {
                return name;
            }
        }

        /** Into an entry of a list, counted from 0. */
        record Place(int index) implements Step {
            @Override
            public String toString() {
                return String.valueOf(index);
            }
        }
    }

    public FaultPath {
        steps = List.copyOf(steps);
    }

    /** The path of these names. */
    public static FaultPath of(String... names) {
        return of(Arrays.asList(names));
    }

    /** The path of these names. */
    public static FaultPath of(List<String> names) {
        return new FaultPath(names.stream().map(name -> (Step) new Step.Name(name)).toList());
    }

    /** One step further, into a member. */
    public FaultPath then(String name) {
        return then(new Step.Name(name));
    }

    /** One step further, into a list; {@code index} counts from 0. */
    public FaultPath then(int index) {
        return then(new Step.Place(index));
    }

    private FaultPath then(Step step) {
        var all = new ArrayList<>(steps);
        all.add(step);
        return new FaultPath(all);
    }

    /** The same seen from further out. */
    public FaultPath inside(FaultPath outer) {
        var all = new ArrayList<>(outer.steps());
        all.addAll(steps);
        return new FaultPath(all);
    }

    public boolean isWhole() {
        return steps.isEmpty();
    }

    /** As a JSON Pointer (RFC 6901); empty for the whole. */
    public String pointer() {
        return steps.stream()
                .map(step -> "/" + step.toString().replace("~", "~0").replace("/", "~1"))
                .collect(Collectors.joining());
    }

    /** The steps with something between them. */
    public String joined(String between) {
        return steps.stream().map(Step::toString).collect(Collectors.joining(between));
    }

    /** As people read it: {@code charges.0.tariff}. */
    @Override
    public String toString() {
        return joined(".");
    }
}
