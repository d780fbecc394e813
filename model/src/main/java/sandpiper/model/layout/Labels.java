package sandpiper.model.layout;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import sandpiper.model.type.AskedLanguages;

/**
 * What things are called in further languages. Whoever asks gets the language that fits, by lookup
 * (RFC 4647 §3.4); contracts, messages and logic use the main one, which stands with the things
 * themselves.
 *
 * @param texts by place, such as {@code Stay.arrival}: labels by language, the main one first
 */
public record Labels(Map<String, Map<String, String>> texts) {
    public static final Labels NONE = new Labels(Map.of());

    public Labels {
        texts = Map.copyOf(texts);
    }

    /** The label at a place in the language that is asked for, or the main label. */
    public String at(String place, String main) {
        var here = texts.get(place);
        if (here == null) {
            return main;
        }
        var languages = List.copyOf(here.keySet());
        return Objects.requireNonNullElse(
                here.get(languages.get(AskedLanguages.current().place(languages))), main);
    }

    /** The label of an object. */
    public String object(String object, String main) {
        return at(object, main);
    }

    /** The label of several records of an object. */
    public String plural(String object, String main) {
        return at(object + "#plural", main);
    }

    /** The label of a part, of a field, or of a field of a part: {@code charges.net}. */
    public String inside(String object, String path, String main) {
        return at(object + "." + path, main);
    }

    /** The label of a code: as the field has it, or as the choice list has it. */
    public String code(String object, String path, String list, String code, String main) {
        var own = object + "." + path + "#" + code;
        return at(texts.containsKey(own) ? own : "#" + list + "#" + code, main);
    }

    /** The label of a transition. */
    public String transition(String object, String transition, String main) {
        return at(object + "#to#" + transition, main);
    }
}
