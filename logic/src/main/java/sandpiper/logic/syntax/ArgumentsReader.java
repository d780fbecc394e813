package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;

/** Reads what a function is called with. */
final class ArgumentsReader {
    private final Parser parser;
    private final TokenReader tokens;
    private final List<LogicProblem> problems;

    ArgumentsReader(Parser parser, TokenReader tokens, List<LogicProblem> problems) {
        this.parser = parser;
        this.tokens = tokens;
        this.problems = problems;
    }

    /** The arguments with both brackets. */
    List<Expr.Argument> read() {
        tokens.expect("(");
        var arguments = new ArrayList<Expr.Argument>();
        if (!tokens.now().is(")")) {
            do {
                arguments.add(argument());
            } while (tokens.accept(","));
        }
        tokens.expect(")");
        return ofOneWay(arguments);
    }

    /** All arguments are given by place, or all by name (grammar rules 40 to 42). */
    private List<Expr.Argument> ofOneWay(List<Expr.Argument> arguments) {
        boolean named = !arguments.isEmpty() && arguments.getFirst().name() != null;
        for (var argument : arguments) {
            if ((argument.name() != null) != named) {
                problems.add(
                        new LogicProblem(
                                LogicCode.WRONG_ARGUMENTS,
                                argument.name() == null
                                        ? argument.value().span()
                                        : argument.nameSpan(),
                                "Arguments are given all by their place or all by their name; this"
                                        + " one is given the other way than the first."));
                return arguments.stream()
                        .map(one ->
                                new Expr.Argument(
                                        null,
                                        one.nameSpan(),
                                        new Expr.Unreadable(one.value().span())))
                        .toList();
            }
        }
        return arguments;
    }

    private Expr.Argument argument() {
        var start = tokens.now().span();
        int words = tokens.wordsBefore(":");
        if (words > 0 && tokens.now().kind() == Token.Kind.NAME) {
            var name = tokens.name(words);
            var nameSpan = start.to(tokens.last().span());
            tokens.next();
            return new Expr.Argument(name, nameSpan, parser.expression());
        }
        var value = parser.expression();
        return new Expr.Argument(null, value.span(), value);
    }
}
