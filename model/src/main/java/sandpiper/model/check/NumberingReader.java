package sandpiper.model.check;

import java.util.ArrayList;
import java.util.Optional;
import java.util.regex.Pattern;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.Numbering;
import sandpiper.model.definition.Numbering.Token;
import sandpiper.model.release.Fields;
import sandpiper.model.source.Source;
import sandpiper.model.type.TextType;

/** Reads how an object numbers its records. */
final class NumberingReader {
    private static final Pattern TOKEN = Pattern.compile("\\{([^{}]*)}|([^{}]+)|(.)");
    private static final Pattern SEQUENCE = Pattern.compile("sequence(?::(\\d{1,2}))?");
    private static final int WIDEST = 15;

    private NumberingReader() {}

    static Optional<Numbering> read(Source source, Fields fields) {
        var definition = Source.mapping(source.root(), "numbering");
        var fieldName = Source.text(definition, "field");
        var pattern = Source.text(definition, "pattern");
        if (fieldName.isEmpty() || pattern.isEmpty()) {
            return Optional.empty();
        }
        var field = fields.find(fieldName.get());
        if (field.isEmpty()) {
            source.error(
                    DefinitionCode.UNKNOWN_FIELD,
                    "There is no field %s.".formatted(Quoted.of(fieldName.get())),
                    Nearest.to(fieldName.get(), fields.names()).orElse(null),
                    "numbering",
                    "field");
            return Optional.empty();
        }
        if (!(field.get().type() instanceof TextType text) || text.isLocalised()) {
            source.error(
                    DefinitionCode.BAD_NUMBERING,
                    "Numbering needs a field of type text, but %s is %s."
                            .formatted(fieldName.get(), field.get().type().keyword().word()),
                    null,
                    "numbering",
                    "field");
            return Optional.empty();
        }
        return tokens(source, fieldName.get(), pattern.get(), Source.flag(definition, "gapless"));
    }

    private static Optional<Numbering> tokens(
            Source source, String field, String pattern, boolean gapless) {
        var tokens = new ArrayList<Token>();
        var matcher = TOKEN.matcher(pattern);
        while (matcher.find()) {
            if (matcher.group(2) != null) {
                tokens.add(new Token.Literal(matcher.group(2)));
                continue;
            }
            var word = matcher.group(1) == null ? matcher.group(3) : matcher.group(1);
            var sequence = SEQUENCE.matcher(word);
            if (word.equals("year")) {
                tokens.add(new Token.Year());
            } else if (word.equals("month")) {
                tokens.add(new Token.Month());
            } else if (sequence.matches()) {
                int width = sequence.group(1) == null ? 1 : Integer.parseInt(sequence.group(1));
                tokens.add(new Token.Sequence(Math.clamp(width, 1, WIDEST)));
            } else {
                return bad(
                        source,
                        "%s is not known in a number; there are {year}, {month} and {sequence:6}."
                                .formatted(Quoted.of("{" + word + "}")));
            }
        }
        long sequences = tokens.stream().filter(Token.Sequence.class::isInstance).count();
        return sequences == 1
                ? Optional.of(new Numbering(field, tokens, pattern, gapless))
                : bad(
                        source,
                        "A number needs {sequence} exactly once, or two records could get the"
                                + " same.");
    }

    private static Optional<Numbering> bad(Source source, String message) {
        source.error(DefinitionCode.BAD_NUMBERING, message, null, "numbering", "pattern");
        return Optional.empty();
    }
}
