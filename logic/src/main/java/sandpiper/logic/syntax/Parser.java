package sandpiper.logic.syntax;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Problem;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;

/**
 * Reads an expression by recursive descent, one method for each level of precedence, loosest first
 * (DMN 1.5 §10.3.1.2): or, and, comparison, and what binds tighter. A level of the full language
 * that is not read yet goes between two of these methods.
 *
 * <p>Text from outside is bounded: at most {@value #LONGEST} characters, nested at most {@value
 * #DEEPEST} deep.
 */
public final class Parser {
    /** Code points; a condition written by a person is under a thousand. */
    public static final int LONGEST = 20_000;

    /** Levels of brackets; keeps the reader's own stack small. */
    public static final int DEEPEST = 100;

    private static final Set<String> RESERVED =
            Set.of(
                    "and",
                    "or",
                    "true",
                    "false",
                    "null",
                    "in",
                    "between",
                    "if",
                    "then",
                    "else",
                    "for",
                    "return",
                    "some",
                    "every",
                    "satisfies",
                    "instance",
                    "of",
                    "function");

    private final List<Problem> problems = new ArrayList<>();
    private final List<Token> tokens;
    private int at;
    private int depth;
    private boolean stopped;

    private Parser(String source) {
        this.tokens = new Lexer(source, problems).tokens();
    }

    /** Reads one whole expression. Never throws on bad text. */
    public static Parsed parse(String source) {
        int length = source.codePointCount(0, source.length());
        if (length > LONGEST) {
            var all = new Span(0, length);
            var message =
                    "This is %,d characters long; at most %,d can be read."
                            .formatted(length, LONGEST);
            return new Parsed(
                    new Expr.Unreadable(all),
                    List.of(new Problem(LogicCode.TEXT_TOO_LONG, all, message)));
        }
        var parser = new Parser(source);
        var expr = parser.expression();
        if (parser.now().kind() != Token.Kind.END && parser.problems.isEmpty()) {
            parser.unexpected("the end");
        }
        return new Parsed(expr, parser.problems);
    }

    private Expr expression() {
        if (depth == DEEPEST) {
            var span = now().span();
            problems.add(
                    new Problem(
                            LogicCode.NESTED_TOO_DEEP,
                            span,
                            "Brackets are nested more than %d deep.".formatted(DEEPEST)));
            stop();
            return new Expr.Unreadable(span);
        }
        depth++;
        try {
            return disjunction();
        } finally {
            depth--;
        }
    }

    private Expr disjunction() {
        var first = conjunction();
        if (!now().isWord("or")) {
            return first;
        }
        var parts = new ArrayList<>(List.of(first));
        while (acceptWord("or")) {
            parts.add(conjunction());
        }
        return new Expr.Logical(false, parts, first.span().to(parts.getLast().span()));
    }

    private Expr conjunction() {
        var first = comparison();
        if (!now().isWord("and")) {
            return first;
        }
        var parts = new ArrayList<>(List.of(first));
        while (acceptWord("and")) {
            parts.add(comparison());
        }
        return new Expr.Logical(true, parts, first.span().to(parts.getLast().span()));
    }

    private Expr comparison() {
        var left = unary();
        var operator = Operator.of(now());
        if (operator.isPresent()) {
            at++;
            var right = unary();
            return new Expr.Comparison(left, operator.get(), right, left.span().to(right.span()));
        }
        if (acceptWord("between")) {
            var low = unary();
            if (!acceptWord("and")) {
                unexpected("\"and\" and the upper end");
                return new Expr.Unreadable(left.span());
            }
            var high = unary();
            return new Expr.Between(left, low, high, left.span().to(high.span()));
        }
        if (acceptWord("in")) {
            return in(left);
        }
        return left;
    }

    /**
     * Behind {@code in}: one test, or several in round brackets (DMN 1.5, grammar rules 49c and
     * 49d).
     */
    private Expr in(Expr value) {
        if (now().is("(") && !isOpenRange()) {
            at++;
            var tests = new ArrayList<>(List.of(test()));
            while (accept(",")) {
                tests.add(test());
            }
            var end = now().span();
            expect(")");
            return new Expr.In(value, tests, value.span().to(end));
        }
        var test = test();
        return new Expr.In(value, List.of(test), value.span().to(test.span()));
    }

    private Expr test() {
        var operator = Operator.of(now());
        if (operator.isPresent()) {
            var start = now().span();
            at++;
            var operand = unary();
            return new Expr.UnaryTest(operator.get(), operand, start.to(operand.span()));
        }
        return unary();
    }

    private Expr unary() {
        var start = now().span();
        if (accept("-")) {
            var operand = unary();
            return new Expr.Negation(operand, start.to(operand.span()));
        }
        return path();
    }

    private Expr path() {
        var expr = primary();
        while (now().is(".")) {
            at++;
            var member = now();
            if (member.kind() != Token.Kind.NAME) {
                unexpected("the name of a field");
                return new Expr.Unreadable(expr.span());
            }
            at++;
            expr = new Expr.Path(expr, member.text(), member.span(), expr.span().to(member.span()));
        }
        return expr;
    }

    private Expr primary() {
        var token = now();
        return switch (token.kind()) {
            case NUMBER -> number(token);
            case TEXT -> {
                at++;
                yield new Expr.TextLiteral(token.text(), token.span());
            }
            case TEMPORAL -> {
                at++;
                yield new Expr.TemporalLiteral(token.text(), token.span());
            }
            case NAME -> named(token);
            case SYMBOL -> bracketed(token);
            case END -> unexpected("a value or a field");
        };
    }

    private Expr number(Token token) {
        at++;
        var value = new BigDecimal(token.text());
        if (value.precision() > 34 || Math.abs((long) value.scale()) > 6111) {
            problems.add(
                    new Problem(
                            LogicCode.BAD_NUMBER,
                            token.span(),
                            "%s has more than the 34 digits a number can have."
                                    .formatted(Quoted.of(token.text()))));
            return new Expr.Unreadable(token.span());
        }
        return new Expr.NumberLiteral(value, token.span());
    }

    private Expr named(Token token) {
        return switch (token.text()) {
            case "true", "false" -> {
                at++;
                yield new Expr.BooleanLiteral(token.text().equals("true"), token.span());
            }
            case "null" -> {
                at++;
                yield new Expr.NullLiteral(token.span());
            }
            default -> nameOrCall(token);
        };
    }

    private Expr nameOrCall(Token token) {
        int words = wordsOfFunctionName();
        if (words > 0) {
            return call(words);
        }
        if (RESERVED.contains(token.text())) {
            return unexpected("a value or a field");
        }
        at++;
        return new Expr.Name(token.text(), token.span());
    }

    /**
     * How many tokens from here are the name of a function that is called, or 0 when nothing is
     * called here.
     */
    private int wordsOfFunctionName() {
        for (var name : FunctionNames.OF_SEVERAL_WORDS) {
            boolean matches = true;
            for (int i = 0; i < name.size() && matches; i++) {
                matches = ahead(i).isWord(name.get(i));
            }
            if (matches && ahead(name.size()).is("(")) {
                return name.size();
            }
        }
        return !RESERVED.contains(now().text()) && ahead(1).is("(") ? 1 : 0;
    }

    private Expr call(int words) {
        var name = new ArrayList<String>();
        var start = now().span();
        var nameSpan = start;
        for (int i = 0; i < words; i++) {
            name.add(now().text());
            nameSpan = nameSpan.to(now().span());
            at++;
        }
        expect("(");
        var arguments = new ArrayList<Expr>();
        if (!now().is(")")) {
            do {
                arguments.add(expression());
            } while (accept(","));
        }
        var end = now().span();
        expect(")");
        return new Expr.Call(String.join(" ", name), nameSpan, arguments, start.to(end));
    }

    private Expr bracketed(Token token) {
        if (token.is("(") && !isOpenRange()) {
            at++;
            var inner = expression();
            expect(")");
            return inner;
        }
        if (token.is("(") || token.is("[") || token.is("]")) {
            return rangeOrList(token);
        }
        return unexpected("a value or a field");
    }

    /** {@code [1..5]}, {@code (1..5]}, or {@code [1, 2, 3]}. */
    private Expr rangeOrList(Token open) {
        at++;
        if (open.is("[") && now().is("]")) {
            var end = now().span();
            at++;
            return new Expr.ListLiteral(List.of(), open.span().to(end));
        }
        var first = expression();
        if (accept("..")) {
            var high = expression();
            var close = now();
            if (!close.is("]") && !close.is(")") && !close.is("[")) {
                return unexpected("a closing bracket");
            }
            at++;
            return new Expr.Range(
                    first, open.is("["), high, close.is("]"), open.span().to(close.span()));
        }
        var items = new ArrayList<>(List.of(first));
        while (accept(",")) {
            items.add(expression());
        }
        var end = now().span();
        expect("]");
        return new Expr.ListLiteral(items, open.span().to(end));
    }

    /**
     * Whether the round bracket here opens a range: its matching bracket is found with {@code ..}
     * directly inside.
     */
    private boolean isOpenRange() {
        int level = 0;
        for (int i = at; i < tokens.size(); i++) {
            var token = tokens.get(i);
            if (token.is("(") || token.is("[")) {
                level++;
            } else if (token.is(")") || token.is("]")) {
                if (--level == 0) {
                    return false;
                }
            } else if (token.is("..") && level == 1) {
                return true;
            } else if (token.is(",") && level == 1) {
                return false;
            }
        }
        return false;
    }

    private boolean accept(String symbol) {
        if (now().is(symbol)) {
            at++;
            return true;
        }
        return false;
    }

    private boolean acceptWord(String word) {
        if (now().isWord(word)) {
            at++;
            return true;
        }
        return false;
    }

    private void expect(String symbol) {
        if (!accept(symbol)) {
            unexpected('"' + symbol + '"');
        }
    }

    /**
     * Reports what stands here, once for each place, and goes to the end so that nothing is
     * reported twice.
     */
    private Expr unexpected(String wanted) {
        var token = now();
        if (!stopped
                && problems.stream().noneMatch(problem -> problem.span().equals(token.span()))) {
            problems.add(
                    token.kind() == Token.Kind.END
                            ? new Problem(
                                    LogicCode.UNEXPECTED_TOKEN,
                                    token.span(),
                                    "This stops too early; expected " + wanted + ".")
                            : new Problem(
                                    LogicCode.UNEXPECTED_TOKEN,
                                    token.span(),
                                    misplaced(token, wanted)));
        }
        stop();
        return new Expr.Unreadable(token.span());
    }

    /**
     * Goes to the end: behind the first thing that has no place, nothing more can be told apart.
     */
    private void stop() {
        stopped = true;
        at = tokens.size() - 1;
    }

    private static String misplaced(Token token, String wanted) {
        var message = "Expected %s, but found %s.".formatted(wanted, Quoted.of(token.text()));
        return switch (token.text()) {
            case "+", "-", "*", "/", "**" ->
                    message + " Work the value out first: a filter compares fields with values.";
            default -> message;
        };
    }

    private Token now() {
        return tokens.get(at);
    }

    private Token ahead(int count) {
        return tokens.get(Math.min(at + count, tokens.size() - 1));
    }
}
