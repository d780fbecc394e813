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
    private final TypeReader types;
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
        this.types = types;
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
                    return parser.nested(this::choice);
                }
                case "for" -> {
                    return parser.nested(this::iteration);
                }
                case "some", "every" -> {
                    return parser.nested(this::quantified);
                }
                case "find" -> {
                    if (tokens.ahead(1).kind() == Token.Kind.NAME
                            && !RESERVED.contains(tokens.ahead(1).text())) {
                        return parser.nested(this::find);
                    }
                }
                default -> {
                    // a name
                }
            }
        }
        return token.text().equals("function") && tokens.ahead(1).is("(")
                ? parser.nested(this::function)
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

    private Expr choice() {
        var start = tokens.next().span();
        var condition = parser.expression();
        if (!tokens.expectWord("then")) {
            return new Expr.Unreadable(start);
        }
        var then = parser.expression();
        if (!tokens.expectWord("else")) {
            return new Expr.Unreadable(start);
        }
        var otherwise = parser.expression();
        return new Expr.If(condition, then, otherwise, start.to(otherwise.span()));
    }

    private Expr iteration() {
        var start = tokens.next().span();
        var iterators = iterators();
        if (!tokens.expectWord("return")) {
            return new Expr.Unreadable(start);
        }
        var result = parser.expression();
        return new Expr.For(iterators, result, start.to(result.span()));
    }

    private Expr quantified() {
        var word = tokens.next();
        var iterators = iterators();
        if (!tokens.expectWord("satisfies")) {
            return new Expr.Unreadable(word.span());
        }
        var condition = parser.expression();
        return new Expr.Quantified(
                word.text().equals("every"),
                iterators,
                condition,
                word.span().to(condition.span()));
    }

    private List<Expr.Iterator> iterators() {
        var iterators = new ArrayList<Expr.Iterator>();
        do {
            var name = tokens.expectName("a name for each item");
            if (name == null || !tokens.expectWord("in")) {
                continue;
            }
            var domain = parser.expression();
            Expr end = null;
            if (tokens.accept("..")) {
                end = parser.expression();
            }
            iterators.add(new Expr.Iterator(name.text(), name.span(), domain, end));
        } while (tokens.accept(","));
        return iterators;
    }

    private Expr function() {
        var start = tokens.next().span();
        tokens.expect("(");
        var parameters = new ArrayList<Expr.Parameter>();
        if (!tokens.now().is(")")) {
            do {
                var first = tokens.now().span();
                int words = tokens.wordsBefore(":", ",", ")");
                if (words == 0 || tokens.now().kind() != Token.Kind.NAME) {
                    tokens.unexpected("the name of a parameter");
                    continue;
                }
                var name = tokens.name(words);
                var span = first.to(tokens.last().span());
                TypeName type = tokens.accept(":") ? types.read() : null;
                parameters.add(new Expr.Parameter(name, type, span));
            } while (tokens.accept(","));
        }
        tokens.expect(")");
        if (tokens.now().isWord("external")) {
            var span = tokens.next().span();
            problems.add(
                    new LogicProblem(
                            LogicCode.UNEXPECTED_TOKEN,
                            span,
                            "A function written outside cannot be called from here; write what it"
                                    + " does behind its brackets."));
        }
        parameters.forEach(one -> tokens.names().show(one.name()));
        var body = parser.expression();
        parameters.forEach(one -> tokens.names().hide(one.name()));
        return new Expr.FunctionLiteral(parameters, body, start.to(body.span()));
    }

    private Expr find() {
        var start = tokens.next().span();
        boolean first = tokens.now().isWord("first") && tokens.ahead(1).kind() == Token.Kind.NAME;
        if (first) {
            tokens.next();
        }
        var object = tokens.expectName("the name of an object");
        if (object == null) {
            return new Expr.Unreadable(start);
        }
        var where = tokens.acceptWord("where") ? parser.expression() : null;
        var orders = orders();
        @Nullable Expr take = tokens.acceptWord("take") ? parser.sum() : null;
        return new Expr.Find(
                object.text(),
                object.span(),
                first,
                where,
                orders,
                take,
                start.to(tokens.last().span()));
    }

    private List<Expr.Order> orders() {
        var orders = new ArrayList<Expr.Order>();
        if (tokens.now().isWord("order") && tokens.ahead(1).isWord("by")) {
            tokens.joined(2);
            do {
                var by = parser.sum();
                boolean descending = tokens.acceptWord("descending");
                if (!descending) {
                    tokens.acceptWord("ascending");
                }
                orders.add(new Expr.Order(by, descending));
            } while (tokens.accept(","));
        }
        return orders;
    }
}
