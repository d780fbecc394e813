package sandpiper.logic.syntax;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.value.Decimal;

/** Reads what a value can begin with: a literal, a name, a call, a bracket, a keyword. */
final class Primary {
    private static final Set<String> RESERVED =
            Set.of(
                    "and",
                    "or",
                    "in",
                    "between",
                    "then",
                    "else",
                    "return",
                    "satisfies",
                    "instance",
                    "of");

    /** Words in the longest name of a function: {@code years and months duration}. */
    private static final int LONGEST_FUNCTION = 4;

    private final Parser parser;
    private final TokenReader tokens;
    private final KeywordReader keywords;
    private final ArgumentsReader arguments;
    private final List<LogicProblem> problems;

    Primary(
            Parser parser,
            TokenReader tokens,
            TypeReader types,
            ArgumentsReader arguments,
            List<LogicProblem> problems) {
        this.parser = parser;
        this.tokens = tokens;
        this.keywords = new KeywordReader(parser, tokens, types, problems);
        this.arguments = arguments;
        this.problems = problems;
    }

    Expr read() {
        var token = tokens.now();
        return switch (token.kind()) {
            case NUMBER -> number(token);
            case TEXT -> {
                tokens.next();
                yield new Expr.TextLiteral(token.text(), token.span());
            }
            case TEMPORAL -> {
                tokens.next();
                yield new Expr.TemporalLiteral(token.text(), token.span());
            }
            case NAME -> tokens.beginsLine(token) ? missing() : named(token);
            case SYMBOL -> bracketed(token);
            case END -> missing();
        };
    }

    private Expr missing() {
        return tokens.unexpected("a value or a field");
    }

    private Expr number(Token token) {
        tokens.next();
        var value = decimal(token.text());
        boolean tooLong = value != null && value.stripTrailingZeros().precision() > 34;
        if (value == null || tooLong || Decimal.tryExactly(value) == null) {
            problems.add(
                    new LogicProblem(
                            LogicCode.BAD_NUMBER,
                            token.span(),
                            tooLong
                                    ? "%s has more than the 34 digits a number can have."
                                            .formatted(Quoted.of(token.text()))
                                    : "%s is beyond the numbers there are, from 1E-6176 to 9.99E6144."
                                            .formatted(Quoted.of(token.text()))));
            return new Expr.Unreadable(token.span());
        }
        return new Expr.NumberLiteral(value, token.span());
    }

    /** {@code null} when its exponent is beyond all numbers. */
    private static @Nullable BigDecimal decimal(String text) {
        try {
            return new BigDecimal(text);
        } catch (NumberFormatException _) {
            return null;
        }
    }

    private Expr named(Token token) {
        if (!tokens.ahead(1).is("(") || token.text().equals("if")) {
            switch (token.text()) {
                case "true", "false" -> {
                    tokens.next();
                    return new Expr.BooleanLiteral(token.text().equals("true"), token.span());
                }
                case "null" -> {
                    tokens.next();
                    return new Expr.NullLiteral(token.span());
                }
                case "if" -> {
                    return parser.nested(keywords::choice);
                }
                case "for" -> {
                    return parser.nested(keywords::iteration);
                }
                case "some", "every" -> {
                    return parser.nested(keywords::quantified);
                }
                case "find" -> {
                    if (tokens.ahead(1).kind() == Token.Kind.NAME
                            && !RESERVED.contains(tokens.ahead(1).text())) {
                        return parser.nested(keywords::find);
                    }
                }
                default -> {
                    // a name
                }
            }
        }
        return token.text().equals("function") && tokens.ahead(1).is("(")
                ? parser.nested(keywords::function)
                : nameOrCall(token);
    }

    private Expr nameOrCall(Token token) {
        int declared = tokens.wordsOfName();
        if (declared > 0) {
            return declared(token, declared);
        }
        int words = tokens.wordsOf(FunctionNames.OF_SEVERAL_WORDS, 0);
        if (words > 0 && tokens.ahead(words).is("(")) {
            return call(words);
        }
        if (words > 1 && !token.text().equals("is")) {
            // A built-in function as a value.
            return new Expr.Name(tokens.joined(words), token.span().to(tokens.last().span()));
        }
        if (token.text().equals("is") && tokens.ahead(1).isWord("new")) {
            tokens.joined(2);
            return new Expr.Name("is new", token.span().to(tokens.last().span()));
        }
        if (RESERVED.contains(token.text())) {
            return missing();
        }
        int misspelt = wordsOfMisspelt();
        if (misspelt > 0) {
            return call(misspelt);
        }
        if (tokens.ahead(1).is("(") && !tokens.ahead(1).startsLine()) {
            return call(1);
        }
        tokens.next();
        return new Expr.Name(token.text(), token.span());
    }

    /** Words before a bracket that are nearly the name of a function of several words; or 0. */
    private int wordsOfMisspelt() {
        var words = new StringBuilder(tokens.now().text());
        for (int i = 1; i < LONGEST_FUNCTION; i++) {
            var word = tokens.ahead(i);
            if (word.kind() != Token.Kind.NAME
                    || word.startsLine()
                    || RESERVED.contains(word.text())) {
                return 0;
            }
            words.append(' ').append(word.text());
            if (tokens.ahead(i + 1).is("(")) {
                var known =
                        FunctionNames.OF_SEVERAL_WORDS.stream()
                                .map(name -> String.join(" ", name))
                                .toList();
                return Nearest.to(words.toString(), known).isPresent() ? i + 1 : 0;
            }
        }
        return 0;
    }

    /** A name of several words that the text has given to something. */
    private Expr declared(Token token, int words) {
        if (tokens.ahead(words).is("(") && !tokens.ahead(words).startsLine()) {
            return call(words);
        }
        var name = tokens.name(words);
        return new Expr.Name(name, token.span().to(tokens.last().span()));
    }

    private Expr call(int words) {
        var start = tokens.now().span();
        var name = tokens.name(words);
        var nameSpan = start.to(tokens.last().span());
        var given = arguments.read();
        return new Expr.Call(name, nameSpan, given, start.to(tokens.last().span()));
    }

    private Expr bracketed(Token token) {
        if (token.is("?")) {
            tokens.next();
            return new Expr.Name("?", token.span());
        }
        if (token.is("(") && !tokens.isOpenRange()) {
            tokens.next();
            return grouped(token);
        }
        if (token.is("(") || token.is("[") || token.is("]")) {
            return rangeOrList(token);
        }
        return token.is("{") ? parser.nested(this::context) : missing();
    }

    private Expr grouped(Token open) {
        var operator = Operator.of(tokens.now());
        if (operator.isPresent()) {
            var test = parser.unaryTest(operator.get());
            var end = tokens.now().span();
            tokens.expect(")");
            return new Expr.UnaryTest(test.operator(), test.operand(), open.span().to(end));
        }
        var inner = parser.expression();
        tokens.expect(")");
        return inner;
    }

    /** {@code [1..5]}, {@code (1..5]}, {@code ]1..5[}, or {@code [1, 2, 3]}. */
    private Expr rangeOrList(Token open) {
        tokens.next();
        if (open.is("[") && tokens.now().is("]")) {
            var end = tokens.next().span();
            return new Expr.ListLiteral(List.of(), open.span().to(end));
        }
        var first = parser.expression();
        if (tokens.accept("..")) {
            var high = parser.rangeEnd();
            var close = tokens.now();
            if (!close.is("]") && !close.is(")") && !close.is("[")) {
                return tokens.unexpected("a closing bracket");
            }
            tokens.next();
            return new Expr.Range(
                    first, open.is("["), high, close.is("]"), open.span().to(close.span()));
        }
        var items = new ArrayList<>(List.of(first));
        while (tokens.accept(",")) {
            items.add(parser.expression());
        }
        var end = tokens.now().span();
        tokens.expect("]");
        return new Expr.ListLiteral(items, open.span().to(end));
    }

    private Expr context() {
        var open = tokens.next().span();
        var entries = new ArrayList<Expr.Entry>();
        if (!tokens.now().is("}")) {
            do {
                entries.add(entry());
                tokens.names().show(entries.getLast().name());
            } while (tokens.accept(","));
        }
        entries.forEach(entry -> tokens.names().hide(entry.name()));
        var end = tokens.now().span();
        tokens.expect("}");
        return new Expr.ContextLiteral(entries, open.to(end));
    }

    private Expr.Entry entry() {
        var start = tokens.now();
        String name;
        if (start.kind() == Token.Kind.TEXT) {
            tokens.next();
            name = start.text();
        } else {
            int words = tokens.wordsBefore(":");
            if (words == 0) {
                tokens.unexpected("a name with a colon, as in price: 5");
                name = "";
            } else {
                name = tokens.name(words);
            }
        }
        var nameSpan = start.span().to(tokens.last().span());
        if (name.isEmpty()) {
            return new Expr.Entry("", start.span(), new Expr.Unreadable(start.span()));
        }
        tokens.expect(":");
        return new Expr.Entry(name, nameSpan, parser.expression());
    }
}
