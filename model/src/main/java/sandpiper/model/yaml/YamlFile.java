package sandpiper.model.yaml;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;

/** One file read as YAML: its tree, when it has one, and what is wrong with its form. */
public final class YamlFile {
    /** Code points; the largest hand-written file is a hundredth of this. */
    private static final int LARGEST = 1_000_000;

    private static final int DEEPEST = 40;

    private final String file;
    private final List<Diagnostic> diagnostics;
    private final Set<Node> seen = Collections.newSetFromMap(new IdentityHashMap<>());

    private YamlFile(String file, List<Diagnostic> diagnostics) {
        this.file = file;
        this.diagnostics = diagnostics;
    }

    /**
     * Reads a text as one YAML document.
     *
     * @param file name for the diagnostics
     * @param diagnostics receives what is wrong
     * @return the tree, or nothing when the text is not YAML or is empty (which is reported)
     */
    public static Optional<YamlNode> read(String file, String text, List<Diagnostic> diagnostics) {
        var reader = new YamlFile(file, diagnostics);
        if (text.length() > LARGEST) {
            reader.report(
                    DefinitionCode.TOO_LARGE,
                    Place.START,
                    "A file may have at most %,d characters.".formatted(LARGEST));
            return Optional.empty();
        }
        return Optional.ofNullable(reader.compose(text));
    }

    private @Nullable YamlNode compose(String text) {
        var settings =
                LoadSettings.builder()
                        .setAllowDuplicateKeys(true)
                        .setUseMarks(true)
                        .setMaxAliasesForCollections(0)
                        .setCodePointLimit(LARGEST)
                        .build();
        try {
            var node = new Compose(settings).composeString(text).orElse(null);
            if (node == null) {
                report(DefinitionCode.NOT_YAML, Place.START, "This file is empty.");
                return null;
            }
            return convert(node, 0);
        } catch (MarkedYamlEngineException e) {
            // What is never closed is missed at the end of the file, but begins elsewhere.
            var where = isUnclosed(e) ? e.getContextMark() : e.getProblemMark();
            var place = where.map(mark -> place(mark, mark)).orElse(Place.START);
            report(DefinitionCode.NOT_YAML, place, "This is not YAML: %s.".formatted(words(e)));
            return null;
        } catch (YamlEngineException e) {
            report(
                    DefinitionCode.NOT_YAML,
                    Place.START,
                    "This is not YAML: %s.".formatted(firstLine(e)));
            return null;
        }
    }

    private static boolean isUnclosed(MarkedYamlEngineException e) {
        return e.getContextMark().isPresent()
                && (e.getProblem().contains("unexpected end of stream")
                        || e.getProblem().contains("<stream end>"));
    }

    private static String words(MarkedYamlEngineException e) {
        var problem = e.getProblem();
        if (isUnclosed(e)) {
            return String.valueOf(e.getContext()).contains("quoted")
                    ? "the quote that begins here is never closed"
                    : "the bracket that begins here is never closed";
        }
        if (problem.contains("expected <block end>")) {
            return "this line is indented differently from those it belongs with; put it straight"
                    + " below them";
        }
        if (problem.contains("'\\t'") || problem.contains("TAB")) {
            return "a tab stands where spaces are needed; indent with spaces";
        }
        if (problem.contains("mapping values are not allowed here")) {
            return "a colon is not expected here; check the indentation, or put the text in double"
                    + " quotes";
        }
        return problem;
    }

    private static String firstLine(YamlEngineException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("it cannot be read");
    }

    private @Nullable YamlNode convert(Node node, int depth) {
        var place = place(node.getStartMark().orElse(null), node.getEndMark().orElse(null));
        if (!seen.add(node)) {
            report(
                    DefinitionCode.NOT_YAML,
                    place,
                    "Anchors and aliases are not read here; write the text again.");
            return null;
        }
        if (depth > DEEPEST) {
            report(
                    DefinitionCode.NOT_YAML,
                    place,
                    "This is nested more than %d deep.".formatted(DEEPEST));
            return null;
        }
        return switch (node) {
            case ScalarNode scalar -> scalar(scalar, place);
            case SequenceNode sequence -> {
                var items = new ArrayList<YamlNode>();
                for (var item : sequence.getValue()) {
                    var converted = convert(item, depth + 1);
                    if (converted != null) {
                        items.add(converted);
                    }
                }
                yield new YamlNode.Sequence(items, place);
            }
            case MappingNode mapping -> mapping(mapping, place, depth);
            default -> null;
        };
    }

    private static YamlNode.Scalar scalar(ScalarNode scalar, Place place) {
        var tag = scalar.getTag();
        YamlNode.Scalar.Kind kind;
        if (tag.equals(Tag.INT) || tag.equals(Tag.FLOAT)) {
            kind = YamlNode.Scalar.Kind.NUMBER;
        } else if (tag.equals(Tag.BOOL)) {
            kind = YamlNode.Scalar.Kind.BOOLEAN;
        } else if (tag.equals(Tag.NULL)) {
            kind = YamlNode.Scalar.Kind.NULL;
        } else {
            kind = YamlNode.Scalar.Kind.TEXT;
        }
        return new YamlNode.Scalar(scalar.getValue(), kind, style(scalar), place);
    }

    private static YamlNode.Scalar.Style style(ScalarNode scalar) {
        return switch (scalar.getScalarStyle()) {
            case SINGLE_QUOTED -> YamlNode.Scalar.Style.SINGLE_QUOTED;
            case DOUBLE_QUOTED, JSON_SCALAR_STYLE -> YamlNode.Scalar.Style.DOUBLE_QUOTED;
            case LITERAL -> YamlNode.Scalar.Style.LITERAL;
            case FOLDED -> YamlNode.Scalar.Style.FOLDED;
            case PLAIN -> YamlNode.Scalar.Style.PLAIN;
        };
    }

    private YamlNode mapping(MappingNode mapping, Place place, int depth) {
        var entries = new ArrayList<YamlNode.Entry>();
        var keys = new java.util.HashSet<String>();
        for (var tuple : mapping.getValue()) {
            var key = convert(tuple.getKeyNode(), depth + 1);
            if (!(key instanceof YamlNode.Scalar name)) {
                if (key != null) {
                    report(DefinitionCode.NOT_YAML, key.place(), "A key must be a single word.");
                }
                continue;
            }
            if (!keys.add(name.text())) {
                report(
                        DefinitionCode.DUPLICATE_KEY,
                        name.place(),
                        "%s stands here a second time; keep one of them."
                                .formatted(Quoted.of(name.text())));
                continue;
            }
            var value = convert(tuple.getValueNode(), depth + 1);
            if (value != null) {
                entries.add(new YamlNode.Entry(name, value));
            }
        }
        return new YamlNode.Mapping(entries, place);
    }

    private static Place place(@Nullable Mark start, @Nullable Mark end) {
        if (start == null || end == null) {
            return Place.START;
        }
        return new Place(
                start.getLine() + 1, start.getColumn() + 1, end.getLine() + 1, end.getColumn() + 1);
    }

    private void report(ProblemCode code, Place place, String message) {
        diagnostics.add(Diagnostic.error(file, place, code, message, null));
    }
}
