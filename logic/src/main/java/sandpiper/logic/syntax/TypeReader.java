package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.LinkedHashMap;

/** Reads the name of a type, such as {@code list<number>}. */
final class TypeReader {
    private final TokenReader tokens;

    TypeReader(TokenReader tokens) {
        this.tokens = tokens;
    }

    /** A type, grammar rule 54. */
    TypeName read() {
        var start = tokens.now();
        int words = Math.max(1, tokens.wordsOf(FunctionNames.TYPES, 0));
        if (start.kind() != Token.Kind.NAME) {
            tokens.unexpected("the name of a type");
            return new TypeName.Simple("", start.span());
        }
        var name = tokens.joined(words);
        var nameSpan = start.span().to(tokens.last().span());
        if (!tokens.now().is("<")) {
            return new TypeName.Simple(name, nameSpan);
        }
        return switch (name) {
            case "context" -> contextType(start);
            case "function" -> functionType(start);
            default -> {
                tokens.next();
                var inner = read();
                tokens.expect(">");
                yield new TypeName.Of(name, inner, start.span().to(tokens.last().span()));
            }
        };
    }

    private TypeName contextType(Token start) {
        tokens.next();
        var entries = new LinkedHashMap<String, TypeName>();
        do {
            int words = tokens.wordsBefore(":");
            var name = words > 0 ? tokens.name(words) : "";
            if (words == 0) {
                tokens.unexpected("the name of an entry");
            }
            tokens.expect(":");
            var type = read();
            if (!name.isEmpty()) {
                entries.put(name, type);
            }
        } while (tokens.accept(","));
        tokens.expect(">");
        return new TypeName.OfContext(entries, start.span().to(tokens.last().span()));
    }

    private TypeName functionType(Token start) {
        tokens.next();
        var parameters = new ArrayList<TypeName>();
        if (!tokens.now().is(">") && !tokens.now().is("->")) {
            do {
                parameters.add(read());
            } while (tokens.accept(","));
        }
        // Some write what comes out inside the brackets; both are read.
        boolean inside = tokens.accept("->");
        TypeName result = inside ? read() : null;
        tokens.expect(">");
        if (result == null) {
            tokens.expect("->");
            result = read();
        }
        return new TypeName.OfFunction(parameters, result, start.span().to(tokens.last().span()));
    }
}
