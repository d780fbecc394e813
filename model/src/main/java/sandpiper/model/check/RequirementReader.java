package sandpiper.model.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import sandpiper.model.definition.Requirement;
import sandpiper.model.release.Release;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads requirements with their examples; what an example names must be there. */
final class RequirementReader {
    private final Source source;
    private final String packageName;
    private final Release release;
    private final Set<String> told = new HashSet<>();

    RequirementReader(Source source, String packageName, Release release) {
        this.source = source;
        this.packageName = packageName;
        this.release = release;
    }

    List<Requirement> read() {
        var requirements = new ArrayList<Requirement>();
        for (var entry : Source.mapping(source.root(), "requirements").entries()) {
            if (entry.value() instanceof YamlNode.Mapping definition) {
                var examples = new ArrayList<Requirement.Example>();
                for (var one : Source.mapping(definition, "examples").entries()) {
                    if (one.value() instanceof YamlNode.Mapping example) {
                        examples.add(
                                new ExampleReader(source, release, told, one.key(), example)
                                        .read());
                    }
                }
                requirements.add(
                        new Requirement(
                                entry.key().text(),
                                packageName,
                                Source.text(definition, "text").orElse(""),
                                examples));
            }
        }
        return requirements;
    }
}
