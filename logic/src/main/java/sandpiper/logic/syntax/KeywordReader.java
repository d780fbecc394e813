package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;

/** Reads what begins with a keyword: choices, iterations, functions, and finds. */
final class KeywordReader {
    private final Parser parser;
    private final TokenReader tokens;
    private final TypeReader types;
    private final List<LogicProblem> problems;

    KeywordReader(
            Parser parser, TokenReader tokens, TypeReader types, List<LogicProblem> problems) {
        this.parser = parser;
        this.tokens = tokens;
        this.types = types;
        this.problems = problems;
    }

    /** {@code if a then b else c}. */
    Expr choice() {
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

    /** {@code for x in list return y}. */
    Expr iteration() {
        var start = tokens.next().span();
        var iterators = iterators();
        if (!tokens.expectWord("return")) {
            return new Expr.Unreadable(start);
        }
        var result = parser.expression();
        return new Expr.For(iterators, result, start.to(result.span()));
    }

    /** {@code some} and {@code every x in list satisfies y}. */
    Expr quantified() {
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

    /** {@code function(a, b) a + b}. */
    Expr function() {
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

    /** {@code find first Object where a order by b take c}. */
    Expr find() {
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
