package sandpiper.model.release;

import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The fields of an object or a part, in order. A field's {@link Field#index} is its place in here.
 */
public final class Fields implements Iterable<Field> {
    private final List<Field> all;
    private final Map<String, Field> byName = new HashMap<>();

    /** Takes fields whose indexes count from 0. */
    public Fields(List<Field> all) {
        this.all = List.copyOf(all);
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i).index() != i) {
                throw new IllegalArgumentException(
                        "Field %s is at %d".formatted(all.get(i).name(), i));
            }
            byName.put(all.get(i).name(), all.get(i));
        }
    }

    /** The field of a name, or nothing. */
    public Optional<Field> find(String name) {
        return Optional.ofNullable(byName.get(name));
    }

    /** The field of a name that is known to exist. */
    public Field get(String name) {
        return find(name)
                .orElseThrow(() -> new IllegalArgumentException("No field is called " + name));
    }

    public Field get(int index) {
        return all.get(index);
    }

    public int size() {
        return all.size();
    }

    public List<String> names() {
        return all.stream().map(Field::name).toList();
    }

    public Stream<Field> stream() {
        return all.stream();
    }

    @Override
    public Iterator<Field> iterator() {
        return all.iterator();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Fields that && all.equals(that.all);
    }

    @Override
    public int hashCode() {
        return all.hashCode();
    }
}
