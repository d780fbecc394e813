package sandpiper.model.yaml;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Place;

/** A value in a YAML file and its place. Immutable. */
public sealed interface YamlNode {
    Place place();

    /** What a person would call it: "text", "a list". */
    String described();

    /** A single value; {@code text} is as written, without quotes. */
    record Scalar(String text, Kind kind, Style style, Place place) implements YamlNode {
        /** How a value is written down. */
        public enum Style {
            PLAIN,
            SINGLE_QUOTED,
            DOUBLE_QUOTED,
            LITERAL,
            FOLDED
        }

        /** What YAML's core schema takes the text for. */
        public enum Kind {
            TEXT,
            NUMBER,
            BOOLEAN,
            NULL
        }

        @Override
        public String described() {
            return switch (kind) {
                case TEXT -> "text";
                case NUMBER -> "a number";
                case BOOLEAN -> "true or false";
                case NULL -> "nothing";
            };
        }
    }

    record Sequence(List<YamlNode> items, Place place) implements YamlNode {
        public Sequence {
            items = List.copyOf(items);
        }

        @Override
        public String described() {
            return "a list";
        }
    }

    /** Keys with values in the order of the file; keys are text. */
    record Mapping(List<Entry> entries, Place place) implements YamlNode {
        public Mapping {
            entries = List.copyOf(entries);
        }

        @Override
        public String described() {
            return "keys with values";
        }

        /** The value of a key, or nothing. */
        public Optional<YamlNode> get(String key) {
            return entries.stream()
                    .filter(entry -> entry.key().text().equals(key))
                    .map(Entry::value)
                    .findFirst();
        }

        /**
         * Key texts and values in the order of the file; the first wins when a key stands twice.
         */
        public Map<String, YamlNode> asMap() {
            var map = new LinkedHashMap<String, YamlNode>();
            entries.forEach(entry -> map.putIfAbsent(entry.key().text(), entry.value()));
            return map;
        }
    }

    record Entry(Scalar key, YamlNode value) {}

    /**
     * The place of what stands at the end of a path of keys, or of the last part of the path that
     * exists.
     */
    default Place placeOf(String... path) {
        YamlNode node = this;
        for (var key : path) {
            var next = node.child(key);
            if (next == null) {
                return node.place();
            }
            node = next;
        }
        return node.place();
    }

    /** The place of the key at the end of a path, or of the last part of the path that exists. */
    default Place placeOfKey(String... path) {
        YamlNode node = this;
        for (int i = 0; i < path.length; i++) {
            var key = path[i];
            if (i == path.length - 1 && node instanceof Mapping mapping) {
                return mapping.entries().stream()
                        .filter(entry -> entry.key().text().equals(key))
                        .map(entry -> entry.key().place())
                        .findFirst()
                        .orElse(mapping.place());
            }
            var next = node.child(key);
            if (next == null) {
                return node.place();
            }
            node = next;
        }
        return node.place();
    }

    private @Nullable YamlNode child(String key) {
        return switch (this) {
            case Mapping mapping -> mapping.get(key).orElse(null);
            case Sequence sequence -> {
                int index = key.chars().allMatch(Character::isDigit) ? Integer.parseInt(key) : -1;
                yield index >= 0 && index < sequence.items().size()
                        ? sequence.items().get(index)
                        : null;
            }
            case Scalar _ -> null;
        };
    }
}
