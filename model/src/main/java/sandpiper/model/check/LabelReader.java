package sandpiper.model.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.layout.Labels;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Collects labels that are given by language, where others read the main one only. */
final class LabelReader {
    private final Map<String, Map<String, String>> texts = new LinkedHashMap<>();

    Labels labels() {
        return new Labels(texts);
    }

    /** Those of an object, or of what is added to it. */
    void object(Source source, String object, List<String> languages) {
        var root = source.root();
        take(source, languages, object, root.get("label").orElse(null));
        take(source, languages, object + "#plural", root.get("plural").orElse(null));
        fields(source, languages, object, Source.mapping(root, "fields"));
        for (var part : Source.mapping(root, "parts").entries()) {
            if (part.value() instanceof YamlNode.Mapping definition) {
                var place = object + "." + part.key().text();
                take(source, languages, place, definition.get("label").orElse(null));
                fields(source, languages, place, Source.mapping(definition, "fields"));
            }
        }
        var transitions = Source.mapping(Source.mapping(root, "lifecycle"), "transitions");
        for (var transition : transitions.entries()) {
            if (transition.value() instanceof YamlNode.Mapping definition) {
                take(
                        source,
                        languages,
                        object + "#to#" + transition.key().text(),
                        definition.get("label").orElse(null));
            }
        }
        var state = Source.text(Source.mapping(root, "lifecycle"), "field").orElse("state");
        codes(
                source,
                languages,
                object + "." + state,
                Source.mapping(root, "lifecycle").get("states").orElse(null));
    }

    /** Gives a field the labels of another, with those of its codes. */
    void alike(String from, String to) {
        for (var place : List.copyOf(texts.keySet())) {
            if (place.equals(from) || place.startsWith(from + "#")) {
                texts.put(to + place.substring(from.length()), texts.get(place));
            }
        }
    }

    private void fields(
            Source source, List<String> languages, String owner, YamlNode.Mapping fields) {
        for (var field : fields.entries()) {
            if (field.value() instanceof YamlNode.Mapping definition) {
                var place = owner + "." + field.key().text();
                take(source, languages, place, definition.get("label").orElse(null));
                codes(source, languages, place, definition.get("choices").orElse(null));
            }
        }
    }

    /** Those of a choice list of its own. */
    void choices(Source source, String list, List<String> languages) {
        codes(source, languages, "#" + list, source.root().get("codes").orElse(null));
    }

    private void codes(
            Source source, List<String> languages, String place, @Nullable YamlNode codes) {
        if (codes instanceof YamlNode.Mapping mapping) {
            mapping.entries()
                    .forEach(code ->
                            take(source, languages, place + "#" + code.key().text(), code.value()));
        }
    }

    private void take(
            Source source, List<String> languages, String place, @Nullable YamlNode label) {
        if (!(label instanceof YamlNode.Mapping mapping)) {
            return;
        }
        var byLanguage = new LinkedHashMap<String, String>();
        for (var entry : mapping.entries()) {
            var language = entry.key().text();
            if (!languages.contains(language)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.WRONG_VALUE,
                        "%s is no language of the package; there are %s."
                                .formatted(Quoted.of(language), String.join(", ", languages)),
                        Nearest.to(language, languages).orElse(null));
            }
            byLanguage.put(language, Source.text(entry.value()));
        }
        var main = languages.isEmpty() ? "en" : languages.getFirst();
        if (!byLanguage.containsKey(main)) {
            source.errorAt(
                    label.place(),
                    DefinitionCode.MISSING_KEY,
                    "The label in the main language, %s, is missing.".formatted(main),
                    null);
            return;
        }
        var ordered = new LinkedHashMap<String, String>();
        ordered.put(main, byLanguage.get(main));
        ordered.putAll(byLanguage);
        texts.put(place, java.util.Collections.unmodifiableMap(ordered));
    }
}
