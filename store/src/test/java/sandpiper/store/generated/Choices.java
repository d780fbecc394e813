package sandpiper.store.generated;

import java.util.List;

/** Decisions read one after the other from a list of numbers; when it is at its end, each is 0. */
final class Choices {
    private final List<Integer> numbers;
    private int at;

    Choices(List<Integer> numbers) {
        this.numbers = numbers;
    }

    /** From 0 to below {@code bound}. */
    int next(int bound) {
        return at < numbers.size() ? Math.floorMod(numbers.get(at++), bound) : 0;
    }

    boolean chance(int oneOf) {
        return next(oneOf) == oneOf - 1;
    }

    <T> T of(List<T> all) {
        return all.get(next(all.size()));
    }
}
