package sandpiper.model.shape;

import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** What may stand at one place of a definition file. */
public sealed interface Shape {
    /** What is expected, for a message: "true or false", "a whole number from 0 to 9". */
    String expected();

    /** Any text; a number or boolean written without quotes counts as text too. */
    record Text(@Nullable Pattern pattern, String expected) implements Shape {}

    /** Anything; whoever reads it checks it. */
    record Free() implements Shape {
        @Override
        public String expected() {
            return "any value";
        }
    }

    /** {@code true} or {@code false}. */
    record Flag() implements Shape {
        @Override
        public String expected() {
            return "true or false";
        }
    }

    /** A whole number; both ends are allowed. */
    record Whole(int lowest, int highest) implements Shape {
        @Override
        public String expected() {
            return "a whole number from %,d to %,d".formatted(lowest, highest);
        }
    }

    /** One of some words. */
    record Word(List<String> words) implements Shape {
        public Word {
            words = List.copyOf(words);
        }

        @Override
        public String expected() {
            return "one of " + String.join(", ", words);
        }
    }

    /** A list whose items have one shape. */
    record ListOf(Shape item) implements Shape {
        @Override
        public String expected() {
            return "a list";
        }
    }

    /** Names chosen by the consultant, each with a value of one shape. */
    record Named(Pattern names, String nameRule, Shape value) implements Shape {
        @Override
        public String expected() {
            return "names with values";
        }
    }

    /** Known keys, each with a shape of its own. */
    record Keys(List<Key> keys) implements Shape {
        public Keys {
            keys = List.copyOf(keys);
        }

        @Override
        public String expected() {
            return "keys with values";
        }

        List<String> names() {
            return keys.stream().map(Key::name).toList();
        }
    }

    /** One of several shapes, told apart by their form (single value, list, keys). */
    record Either(List<Shape> options) implements Shape {
        public Either {
            options = List.copyOf(options);
        }

        @Override
        public String expected() {
            return String.join(" or ", options.stream().map(Shape::expected).toList());
        }
    }

    /**
     * One key of {@link Keys}.
     *
     * @param describe one sentence for people, also shown by editors
     */
    record Key(String name, boolean required, String describe, Shape shape) {}
}
