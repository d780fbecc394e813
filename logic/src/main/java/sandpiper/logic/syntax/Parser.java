package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;

/**
 * Reads an expression by recursive descent, one method for each level of precedence, loosest first
 * (DMN 1.5 §10.3.1.2): or, and, comparison, sum, product, power, sign, {@code instance of}, path.
 * What a single value can be is read by {@link Primary}.
 *
 * <p>Text from outside is bounded: at most {@value #LONGEST} characters, nested at most {@value
 * #DEEPEST} deep, at most {@value #LONGEST_CHAIN} operations in a row.
 */
public final class Parser {
    /** Code points; a condition written by a person is under a thousand. */
    public static final int LONGEST = 20_000;

    /** Levels of brackets; keeps the reader's own stack small. */
    public static final int DEEPEST = 100;

    /** Operations of one level in a row; each makes the tree one deeper. */
    public static final int LONGEST_CHAIN = 500;

    private final List<LogicProblem> problems;
    private final TokenReader tokens;
    private final TypeReader types;
    private final ArgumentsReader arguments;
    private final Primary primary;
    private int depth;
    private boolean inRangeEnd;

    private Parser(String source, List<LogicProblem> problems) {
        this(new TokenReader(source, problems, Set.of()), problems);
    }

    Parser(TokenReader tokens, List<LogicProblem> problems) {
        this.problems = problems;
        this.tokens = tokens;
        this.types = new TypeReader(tokens);
        this.arguments = new ArgumentsReader(this, tokens, problems);
        this.primary = new Primary(this, tokens, types, arguments, problems);
    }

    /** Reads one whole expression. Never throws on bad text. */
    public static Parsed parse(String source) {
        var tooLong = tooLong(source, LONGEST);
        if (tooLong != null) {
            return new Parsed(new Expr.Unreadable(tooLong.span()), List.of(tooLong));
        }
        var problems = new ArrayList<LogicProblem>();
        var parser = new Parser(source, problems);
        var expr = parser.expression();
        if (!parser.tokens.atEnd()) {
            parser.tokens.unexpected("the end");
        }
        return new Parsed(expr, problems);
    }

    /** Says that a text is longer than can be read, or {@code null}. */
    static @org.jspecify.annotations.Nullable LogicProblem tooLong(String source, int longest) {
        int length = source.codePointCount(0, source.length());
        return length <= longest
                ? null
                : new LogicProblem(
                        LogicCode.TEXT_TOO_LONG,
                        new Span(0, length),
                        "This is %,d characters long; at most %,d can be read."
                                .formatted(length, longest));
    }

    Expr expression() {
        return nested(this::disjunction);
    }

    /** Reads something that may hold itself, within bounds. */
    Expr nested(Supplier<Expr> inner) {
        if (depth == DEEPEST) {
            var span = tokens.now().span();
            problems.add(
                    new LogicProblem(
                            LogicCode.NESTED_TOO_DEEP,
                            span,
                            "This is nested more than %d deep.".formatted(DEEPEST)));
            tokens.giveUp();
            return new Expr.Unreadable(span);
        }
        depth++;
        try {
            return inner.get();
        } finally {
            depth--;
        }
    }

    private Expr disjunction() {
        return logical("or", this::conjunction);
    }

    private Expr conjunction() {
        return logical("and", this::comparison);
    }

    private Expr logical(String word, Supplier<Expr> part) {
        var first = part.get();
        if (!continues(word)) {
            return first;
        }
        var parts = new ArrayList<>(List.of(first));
        while (continues(word)) {
            tokens.next();
            parts.add(part.get());
        }
        return new Expr.Logical(word.equals("and"), parts, first.span().to(parts.getLast().span()));
    }

    private boolean continues(String word) {
        return tokens.now().isWord(word);
    }

    private Expr comparison() {
        var left = sum();
        for (int i = 0; ; i++) {
            var operator = Operator.of(tokens.now());
            if (operator.isPresent()) {
                tokens.next();
                var right = sum();
                left =
                        new Expr.Comparison(
                                left, operator.get(), right, left.span().to(right.span()));
            } else if (tokens.acceptWord("between")) {
                left = between(left);
            } else if (tokens.acceptWord("in")) {
                left = in(left);
            } else {
                return left;
            }
            if (chainTooLong(i)) {
                return left;
            }
        }
    }

    private boolean chainTooLong(int operations) {
        if (operations < LONGEST_CHAIN) {
            return false;
        }
        var span = tokens.now().span();
        problems.add(
                new LogicProblem(
                        LogicCode.NESTED_TOO_DEEP,
                        span,
                        "There are more than %d operations in a row here; put some of them in a"
                                        .formatted(LONGEST_CHAIN)
                                + " field of their own."));
        tokens.giveUp();
        return true;
    }

    private Expr between(Expr value) {
        var low = sum();
        if (!tokens.expectWord("and")) {
            return new Expr.Unreadable(value.span());
        }
        var high = sum();
        return new Expr.Between(value, low, high, value.span().to(high.span()));
    }

    /** Behind {@code in}: one test, or several in round brackets (grammar rules 49c and 49d). */
    private Expr in(Expr value) {
        if (tokens.now().is("(") && !tokens.isOpenRange()) {
            tokens.next();
            var tests = new ArrayList<>(List.of(test()));
            while (tokens.accept(",")) {
                tests.add(test());
            }
            var end = tokens.now().span();
            tokens.expect(")");
            return new Expr.In(value, tests, value.span().to(end));
        }
        var test = looseTest();
        return new Expr.In(value, List.of(test), value.span().to(test.span()));
    }

    /**
     * A test without brackets around it ends where a comparison would: {@code in} binds tighter
     * than {@code and} and {@code or}.
     */
    private Expr looseTest() {
        var operator = Operator.of(tokens.now());
        return operator.isPresent() ? unaryTest(operator.get()) : nested(this::sum);
    }

    Expr test() {
        var operator = Operator.of(tokens.now());
        if (operator.isPresent()) {
            return unaryTest(operator.get());
        }
        return nested(this::disjunction);
    }

    /** An operator with what stands behind it. */
    Expr.UnaryTest unaryTest(Operator operator) {
        var start = tokens.next().span();
        var operand = nested(this::sum);
        return new Expr.UnaryTest(operator, operand, start.to(operand.span()));
    }

    Expr sum() {
        var left = product();
        for (int i = 0; ; i++) {
            if (tokens.now().is("+")) {
                left = operation(left, ArithmeticOperator.PLUS, this::product);
            } else if (tokens.now().is("-")) {
                left = operation(left, ArithmeticOperator.MINUS, this::product);
            } else {
                return left;
            }
            if (chainTooLong(i)) {
                return left;
            }
        }
    }

    private Expr product() {
        var left = power();
        for (int i = 0; ; i++) {
            if (tokens.now().is("*")) {
                left = operation(left, ArithmeticOperator.TIMES, this::power);
            } else if (tokens.now().is("/")) {
                left = operation(left, ArithmeticOperator.DIVIDE, this::power);
            } else {
                return left;
            }
            if (chainTooLong(i)) {
                return left;
            }
        }
    }

    private Expr power() {
        var left = sign();
        for (int i = 0; tokens.now().is("**"); i++) {
            left = operation(left, ArithmeticOperator.POWER, this::sign);
            if (chainTooLong(i)) {
                return left;
            }
        }
        return left;
    }

    private Expr operation(Expr left, ArithmeticOperator operator, Supplier<Expr> next) {
        tokens.next();
        var right = next.get();
        return new Expr.Arithmetic(left, operator, right, left.span().to(right.span()));
    }

    private Expr sign() {
        if (!tokens.now().is("-")) {
            return instance();
        }
        var start = tokens.next().span();
        var operand = nested(this::sign);
        return new Expr.Negation(operand, start.to(operand.span()));
    }

    private Expr instance() {
        var value = path();
        if (!tokens.now().isWord("instance") || !tokens.ahead(1).isWord("of")) {
            return value;
        }
        tokens.next();
        tokens.next();
        var type = types.read();
        return new Expr.InstanceOf(value, type, value.span().to(type.span()));
    }

    private Expr path() {
        boolean bracketed = tokens.now().is("(");
        var expr = primary.read();
        // What stands in brackets can be called, whatever it is: (if a then f else g)(1).
        return path(expr, bracketed && tokens.last().is(")") ? expr : null);
    }

    /** What follows a name: members, filters, calls. */
    Expr path(Expr.Name name) {
        return path(name, null);
    }

    private Expr path(Expr first, @Nullable Expr group) {
        var expr = first;
        for (int i = 0; ; i++) {
            if (tokens.now().is(".")) {
                tokens.next();
                expr = member(expr);
            } else if (opensFilter()) {
                tokens.next();
                tokens.names().enterFilter();
                var condition = expression();
                tokens.names().leaveFilter();
                var end = tokens.now().span();
                tokens.expect("]");
                expr = new Expr.Filter(expr, condition, expr.span().to(end));
            } else if (tokens.now().is("(")
                    && (expr == group || isCallable(expr))
                    && !tokens.now().startsLine()) {
                var given = arguments.read();
                expr = new Expr.Invocation(expr, given, expr.span().to(tokens.last().span()));
            } else {
                return expr;
            }
            if (chainTooLong(i)) {
                return expr;
            }
        }
    }

    private boolean opensFilter() {
        return tokens.now().is("[")
                && !tokens.now().startsLine()
                && (!inRangeEnd || tokens.isClosed());
    }

    /** The upper end of a range, behind which a bracket that opens may be the one that closes. */
    Expr rangeEnd() {
        boolean before = inRangeEnd;
        inRangeEnd = true;
        try {
            return expression();
        } finally {
            inRangeEnd = before;
        }
    }

    private static boolean isCallable(Expr expr) {
        return expr instanceof Expr.Path
                || expr instanceof Expr.FunctionLiteral
                || expr instanceof Expr.Invocation
                || expr instanceof Expr.Call
                || expr instanceof Expr.Filter;
    }

    private Expr member(Expr source) {
        if (tokens.now().kind() != Token.Kind.NAME) {
            var at = tokens.now().span();
            tokens.unexpected("the name of a field");
            // The empty name marks the place for completion.
            var gap = new Span(source.span().end(), Math.max(source.span().end(), at.start()));
            return new Expr.Path(source, "", gap, source.span());
        }
        int words =
                Math.max(
                        Math.max(1, tokens.wordsOfMember()),
                        tokens.wordsOf(FunctionNames.PROPERTIES, 0));
        var start = tokens.now().span();
        var name = tokens.name(words);
        var nameSpan = start.to(tokens.last().span());
        return new Expr.Path(source, name, nameSpan, source.span().to(nameSpan));
    }
}
