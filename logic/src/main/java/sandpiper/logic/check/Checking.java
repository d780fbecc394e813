package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;

/** What one check gathers: problems, places in the frame, and what stands where. */
final class Checking {
    private final World world;
    private final List<LogicProblem> problems = new ArrayList<>();
    private final Map<Span, Term> meanings = new LinkedHashMap<>();
    private final Map<Span, Scope> scopes = new LinkedHashMap<>();
    private int slots;
    private boolean steps;

    Checking(World world) {
        this.world = world;
    }

    /** Says that steps are checked, which may ask outside. */
    void ofSteps() {
        steps = true;
    }

    boolean areSteps() {
        return steps;
    }

    World world() {
        return world;
    }

    List<LogicProblem> problems() {
        return problems;
    }

    /** What each name in the text means, for hover. */
    Map<Span, Term> meanings() {
        return meanings;
    }

    /** Which names can be used in which stretch of the text, for completion. */
    Map<Span, Scope> scopes() {
        return scopes;
    }

    int slots() {
        return slots;
    }

    Term.Local local(String name, LogicType type, Span span) {
        return new Term.Local(slots++, name, type, span);
    }

    void error(LogicCode code, Span span, String message) {
        error(code, span, message, null);
    }

    void error(LogicCode code, Span span, String message, @Nullable String suggestion) {
        problems.add(new LogicProblem(code, span, message, suggestion));
    }

    void warn(LogicCode code, Span span, String message, @Nullable String suggestion) {
        problems.add(LogicProblem.warning(code, span, message, suggestion));
    }
}
