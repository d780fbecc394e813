package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;

/**
 * Reads steps, one a line. An expression may go on over lines; a line that begins with a step's
 * word begins the next step, so that one bad line costs nothing but itself.
 */
public final class StepParser {
    /** Words that begin a step. */
    public static final List<String> WORDS =
            List.of(
                    "let",
                    "set",
                    "if",
                    "for",
                    "create",
                    "update",
                    "save",
                    "retire",
                    "transition",
                    "require",
                    "reject",
                    "warn",
                    "emit",
                    "call",
                    "return",
                    "note");

    private static final Set<String> LINE_WORDS = lineWords();
    private static final Set<String> OPERATIONS = Set.of("and", "or", "in", "between", "instance");
    private static final int DEEPEST = 30;

    private final List<LogicProblem> problems = new ArrayList<>();
    private final TokenReader tokens;
    private final Parser parser;
    private int depth;

    private StepParser(String source) {
        this.tokens = new TokenReader(source, problems, LINE_WORDS);
        this.parser = new Parser(tokens, problems);
    }

    private static Set<String> lineWords() {
        var words = new TreeSet<>(WORDS);
        words.add("else");
        words.add("end");
        return Set.copyOf(words);
    }

    /** Reads steps. Never throws on bad text. */
    public static ParsedSteps parse(String source) {
        var tooLong = Parser.tooLong(source, Parser.LONGEST);
        if (tooLong != null) {
            return new ParsedSteps(List.of(), List.of(tooLong));
        }
        var parser = new StepParser(source);
        var steps = parser.steps();
        while (!parser.tokens.atEnd()) {
            parser.tokens.unexpected("a step");
            if (!parser.tokens.atEnd()) {
                parser.tokens.next();
            }
            steps.addAll(parser.steps());
        }
        return new ParsedSteps(steps, parser.problems);
    }

    /** Whether steps only find something out: they change, raise and call nothing. */
    public static boolean asksOnly(String source) {
        return asksOnly(parse(source).steps());
    }

    private static boolean asksOnly(List<Step> steps) {
        return steps.stream()
                .allMatch(step ->
                        switch (step) {
                            case Step.Let _,
                                    Step.Note _,
                                    Step.Return _,
                                    Step.Reject _,
                                    Step.Warn _ ->
                                    true;
                            case Step.If choice ->
                                    asksOnly(choice.otherwise())
                                            && choice.branches().stream()
                                                    .allMatch(one -> asksOnly(one.steps()));
                            case Step.ForEach loop -> asksOnly(loop.steps());
                            default -> false;
                        });
    }

    /** Everything that is called in a text of steps, inner steps included. */
    public static List<Expr> called(String source) {
        var calls = new ArrayList<Expr>();
        collectCalls(parse(source).steps(), calls);
        return calls;
    }

    private static void collectCalls(List<Step> steps, List<Expr> into) {
        for (var step : steps) {
            switch (step) {
                case Step.Call call -> into.add(call.target());
                case Step.If choice -> {
                    choice.branches().forEach(one -> collectCalls(one.steps(), into));
                    collectCalls(choice.otherwise(), into);
                }
                case Step.ForEach loop -> collectCalls(loop.steps(), into);
                default -> {
                    // calls nothing
                }
            }
        }
    }

    /** Steps up to a word that ends them, or the end. */
    private List<Step> steps() {
        var steps = new ArrayList<Step>();
        while (!tokens.atEnd() && !tokens.now().isWord("end") && !tokens.now().isWord("else")) {
            var step = step();
            if (step != null) {
                steps.add(step);
            }
            var next = tokens.now();
            if (!tokens.atEnd() && !LINE_WORDS.contains(next.text())) {
                if (step != null && !next.startsLine()) {
                    tokens.unexpected("the end of the line");
                }
                if (!LINE_WORDS.contains(tokens.now().text()) && !tokens.now().startsLine()) {
                    tokens.skipToLineWord();
                }
            }
        }
        return steps;
    }

    private @Nullable Step step() {
        var word = tokens.now();
        if (word.kind() != Token.Kind.NAME || !WORDS.contains(word.text())) {
            problems.add(
                    new LogicProblem(
                            LogicCode.UNKNOWN_STEP,
                            word.span(),
                            "%s is not a step; a line begins with one of %s."
                                    .formatted(Quoted.of(word.text()), String.join(", ", WORDS)),
                            Nearest.to(word.text(), WORDS).orElse(null)));
            tokens.next();
            tokens.skipToLineWord();
            return null;
        }
        if (depth == DEEPEST) {
            problems.add(
                    new LogicProblem(
                            LogicCode.NESTED_TOO_DEEP,
                            word.span(),
                            "Steps are nested more than %d deep.".formatted(DEEPEST)));
            tokens.giveUp();
            return null;
        }
        depth++;
        try {
            return read(tokens.next());
        } finally {
            depth--;
        }
    }

    private @Nullable Step read(Token word) {
        var start = word.span();
        return switch (word.text()) {
            case "let" -> let(start);
            case "set" -> set(start);
            case "if" -> choice(start);
            case "for" -> loop(start);
            case "create" -> create(start);
            case "save" -> save(start);
            case "update" -> {
                var record = parser.sum();
                yield new Step.Update(record, entries(), through(start));
            }
            case "retire" -> new Step.Retire(parser.expression(), through(start));
            case "transition" -> transition(start);
            case "require" -> require(start);
            case "reject" -> {
                var message = parser.expression();
                yield new Step.Reject(null, message, at(), through(start));
            }
            case "warn" -> {
                var message = parser.expression();
                yield new Step.Warn(message, at(), through(start));
            }
            case "call" -> {
                var target = callTarget();
                yield new Step.Call(target, as(), through(start));
            }
            case "emit" -> emit(start);
            case "return" -> {
                boolean alone =
                        tokens.atEnd()
                                || tokens.now().startsLine()
                                || tokens.now().isWord("else")
                                || tokens.now().isWord("end");
                var value = alone ? null : parser.expression();
                yield new Step.Return(value, through(start));
            }
            default -> new Step.Note(parser.expression(), through(start));
        };
    }

    private Span through(Span start) {
        return start.to(tokens.last().span());
    }

    private @Nullable Step let(Span start) {
        var name = tokens.expectName("a name");
        if (name == null) {
            return null;
        }
        tokens.expect("=");
        if (isCall()) {
            tokens.next();
            return new Step.Call(callTarget(), name.text(), through(start));
        }
        var value = parser.expression();
        return new Step.Let(name.text(), name.span(), value, through(start));
    }

    /** Whether a call follows, and not something that is called call. */
    private boolean isCall() {
        var behind = tokens.ahead(1);
        return tokens.now().isWord("call")
                && behind.kind() == Token.Kind.NAME
                && !behind.startsLine()
                && !OPERATIONS.contains(behind.text());
    }

    /** What is called; an outside service may have hyphens in its name. */
    private Expr callTarget() {
        int words = tokens.wordsBefore(".");
        if (words > 1 && tokens.isUnbroken(words)) {
            var start = tokens.now().span();
            var name = tokens.name(words);
            return parser.path(new Expr.Name(name, start.to(tokens.last().span())));
        }
        return parser.expression();
    }

    private Step set(Span start) {
        var target = parser.sum();
        tokens.expect("=");
        var value = parser.expression();
        return new Step.Set(target, value, through(start));
    }

    private Step choice(Span start) {
        var branches = new ArrayList<Step.Branch>();
        List<Step> otherwise = List.of();
        var condition = parser.expression();
        tokens.expectWord("then");
        branches.add(new Step.Branch(condition, steps()));
        while (tokens.acceptWord("else")) {
            if (tokens.acceptWord("if")) {
                var next = parser.expression();
                tokens.expectWord("then");
                branches.add(new Step.Branch(next, steps()));
            } else {
                otherwise = steps();
                break;
            }
        }
        tokens.expectWord("end");
        return new Step.If(branches, otherwise, through(start));
    }

    private @Nullable Step loop(Span start) {
        tokens.expectWord("each");
        var name = tokens.expectName("a name for each item");
        if (name == null) {
            return null;
        }
        tokens.expectWord("in");
        var list = parser.expression();
        var last = tokens.accept("..") ? parser.expression() : null;
        var steps = steps();
        tokens.expectWord("end");
        return new Step.ForEach(name.text(), name.span(), list, last, steps, through(start));
    }

    private @Nullable Step create(Span start) {
        var object = tokens.expectName("the name of an object");
        if (object == null) {
            return null;
        }
        var values = entries();
        return new Step.Create(object.text(), object.span(), values, as(), through(start));
    }

    private @Nullable Step save(Span start) {
        var object = tokens.expectName("the name of an object");
        if (object == null) {
            return null;
        }
        tokens.expectWord("by");
        tokens.expectWord("key");
        var values = entries();
        return new Step.Save(object.text(), object.span(), values, as(), through(start));
    }

    private @Nullable String as() {
        if (!tokens.acceptWord("as")) {
            return null;
        }
        var name = tokens.expectName("a name");
        return name == null ? null : name.text();
    }

    private @Nullable Step emit(Span start) {
        var event = tokens.expectName("the name of an event");
        if (event == null) {
            return null;
        }
        var values = tokens.now().is("{") ? entries() : List.<Expr.Entry>of();
        var about = tokens.acceptWord("about") ? parser.expression() : null;
        return new Step.Emit(event.text(), event.span(), values, about, through(start));
    }

    private List<Expr.Entry> entries() {
        if (!tokens.now().is("{")) {
            tokens.unexpected("{ with fields and values, as in { state: \"Open\" }");
            return List.of();
        }
        return parser.expression() instanceof Expr.ContextLiteral context
                ? context.entries()
                : List.of();
    }

    private @Nullable Step transition(Span start) {
        var name = tokens.expectName("the name of a transition");
        if (name == null) {
            return null;
        }
        var record = tokens.acceptWord("of") ? parser.expression() : null;
        return new Step.Transition(name.text(), name.span(), record, through(start));
    }

    private Step require(Span start) {
        var condition = parser.expression();
        tokens.expectWord("else");
        tokens.expectWord("reject");
        var message = parser.expression();
        return new Step.Reject(condition, message, at(), through(start));
    }

    private @Nullable Expr at() {
        return tokens.acceptWord("at") ? parser.sum() : null;
    }
}
