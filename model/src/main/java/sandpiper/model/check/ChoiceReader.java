package sandpiper.model.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.yaml.YamlNode;

/** Reads choice lists, from files of their own and from fields. */
final class ChoiceReader {
    private static final int LONGEST_CODE = 60;

    private ChoiceReader() {}

    /**
     * Reads a list of codes, or codes with labels.
     *
     * @param languages of the package, the main one first
     */
    static ChoiceList read(Source source, String name, YamlNode codes, List<String> languages) {
        var labels = new LinkedHashMap<String, String>();
        switch (codes) {
            case YamlNode.Sequence sequence -> {
                for (var item : sequence.items()) {
                    add(source, labels, item, Source.text(item), Names.label(Source.text(item)));
                }
            }
            case YamlNode.Mapping mapping -> {
                for (var entry : mapping.entries()) {
                    add(
                            source,
                            labels,
                            entry.key(),
                            entry.key().text(),
                            Source.spoken(entry.value(), languages));
                }
            }
            case YamlNode.Scalar _ -> {
                return new ChoiceList(name, Map.of());
            }
        }
        if (labels.isEmpty()) {
            source.errorAt(
                    codes.place(),
                    DefinitionCode.WRONG_VALUE,
                    "A choice list needs at least one code.",
                    null);
        }
        return new ChoiceList(name, labels);
    }

    private static void add(
            Source source, Map<String, String> labels, YamlNode at, String code, String label) {
        if (code.isBlank() || code.length() > LONGEST_CODE) {
            source.errorAt(
                    at.place(),
                    DefinitionCode.WRONG_VALUE,
                    "A code has 1 to %d characters.".formatted(LONGEST_CODE),
                    null);
        } else if (labels.putIfAbsent(code, label) != null) {
            source.errorAt(
                    at.place(),
                    DefinitionCode.DUPLICATE_NAME,
                    "The code %s stands here a second time.".formatted(Quoted.of(code)),
                    null);
        }
    }
}
