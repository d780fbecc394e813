package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.term.Terms;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.definition.LogicText;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/** Checks and compiles all logic of a release. */
public final class LogicCompiler {
    private final Release release;
    private final List<Diagnostic> diagnostics = new ArrayList<>();
    private final Map<String, Draft> drafts = new LinkedHashMap<>();
    private final Set<String> onRead = new HashSet<>();

    /** A formula before its place in the order is known. */
    private record Draft(
            ObjectType object,
            @Nullable Part part,
            Field field,
            LogicText text,
            CheckedTerm checked,
            Routes routes) {
        String written() {
            return name(object, part, field);
        }
    }

    /** All logic with what watches what. */
    record Compiled(List<ObjectLogic> logic, Map<String, List<Watch>> watches) {}

    private LogicCompiler(Release release) {
        this.release = release;
    }

    /** Looks at all logic and says what is wrong with it. Never throws on bad text. */
    public static Findings findings(Release release) {
        var compiler = new LogicCompiler(release);
        compiler.readFormulas();
        compiler.order();
        for (var object : release.objects()) {
            new ObjectCompiler(release, object, compiler.diagnostics, compiler.onRead).compile();
        }
        return new Findings(
                compiler.diagnostics, release.objects().stream().map(compiler::marked).toList());
    }

    static Compiled compile(Release release) {
        return new LogicCompiler(release).compiled();
    }

    private static String name(ObjectType object, @Nullable Part part, Field field) {
        return object.name() + "." + (part == null ? "" : part.name() + ".") + field.name();
    }

    /** The written name of the field that is read; {@code null} for line items as such. */
    private static @Nullable String name(Routes.Reading reading) {
        var field = reading.field();
        return field == null ? null : name(reading.object(), reading.part(), field);
    }

    private void readFormulas() {
        for (var object : release.objects()) {
            object.fields().forEach(field -> readFormula(object, null, field));
            for (var part : object.parts()) {
                part.fields().forEach(field -> readFormula(object, part, field));
            }
        }
    }

    private void readFormula(ObjectType object, @Nullable Part part, Field field) {
        var text = field.logic().formula();
        if (text == null) {
            return;
        }
        var type = ModelMember.of(release, object, field).type();
        var checked =
                Checker.value(
                        text.text(), NameContexts.ofFormula(release, object, part, field), type);
        Reports.add(text, checked.problems(), diagnostics);
        var routes = Routes.of(release, object, part, checked.term());
        var draft = new Draft(object, part, field, text, checked, routes);
        drafts.put(draft.written(), draft);
        if (Terms.dependsOnClock(checked.term()) || !routes.isWatchable()) {
            onRead.add(draft.written());
        }
    }

    /** The written names of formulas in an order in which they can be worked out. */
    private List<String> order() {
        var order = new FormulaOrder();
        for (var draft : drafts.values()) {
            order.add(
                    draft.written(),
                    draft.routes().readings().stream()
                            .map(LogicCompiler::name)
                            .filter(Objects::nonNull)
                            .distinct()
                            .toList());
        }
        var sorted = order.order();
        order.circles()
                .forEach(circle -> {
                    var first = Objects.requireNonNull(drafts.get(circle.getFirst()));
                    diagnostics.add(
                            Diagnostic.error(
                                    first.text().origin().file(),
                                    first.text().origin().place(0, first.text().text().length()),
                                    DefinitionCode.FORMULA_CYCLE,
                                    "These formulas need each other, so none can be worked out: %s."
                                            .formatted(String.join(" needs ", circle)),
                                    null));
                });
        for (var name : sorted) {
            var draft = Objects.requireNonNull(drafts.get(name));
            boolean readsOnRead =
                    draft.routes().readings().stream()
                            .map(LogicCompiler::name)
                            .anyMatch(one -> one != null && onRead.contains(one));
            if (readsOnRead) {
                onRead.add(name);
            }
        }
        return sorted;
    }

    private ObjectType marked(ObjectType object) {
        return object.with(
                marked(object, null, object.fields()),
                object.parts().stream()
                        .map(part -> part.with(marked(object, part, part.fields())))
                        .toList());
    }

    private Fields marked(ObjectType object, @Nullable Part part, Fields fields) {
        return new Fields(
                fields.stream()
                        .map(field ->
                                onRead.contains(name(object, part, field))
                                        ? field.workedOutOnRead()
                                        : field)
                        .toList());
    }

    private Compiled compiled() {
        readFormulas();
        var sorted = order();
        var formulas = new HashMap<String, List<Formula>>();
        var watches = new HashMap<String, List<Watch>>();
        for (int rank = 0; rank < sorted.size(); rank++) {
            var draft = Objects.requireNonNull(drafts.get(sorted.get(rank)));
            boolean watched =
                    draft.routes().readings().stream().anyMatch(one -> isElsewhere(one.route()));
            var formula =
                    new Formula(
                            rank,
                            draft.object(),
                            draft.part(),
                            draft.field(),
                            draft.checked(),
                            Compiler.compile(draft.checked()),
                            watched,
                            ownFields(draft),
                            ownParts(draft),
                            draft.part() == null
                                    ? TotalFinder.find(release, draft.field(), draft.checked())
                                            .orElse(null)
                                    : null);
            formulas.computeIfAbsent(draft.object().name(), _ -> new ArrayList<>()).add(formula);
            if (!draft.field().onRead()) {
                var shares =
                        new SharedTotals(release, draft.object(), draft.part(), draft.checked());
                for (var reading : draft.routes().readings()) {
                    if (!reading.isOwn()) {
                        watches.computeIfAbsent(reading.object().name(), _ -> new ArrayList<>())
                                .add(
                                        new Watch(
                                                reading.part(),
                                                reading.field(),
                                                reading.route(),
                                                formula,
                                                shares.of(reading.object())));
                    }
                }
            }
        }
        var logic =
                release.objects().stream()
                        .map(object ->
                                new ObjectCompiler(release, object, diagnostics, onRead)
                                        .compile()
                                        .with(formulas.getOrDefault(object.name(), List.of())))
                        .toList();
        return new Compiled(logic, watches);
    }

    private static Set<Field> ownFields(Draft draft) {
        var fields = new HashSet<Field>();
        for (var reading : draft.routes().readings()) {
            var field = reading.field();
            if (field != null && reading.isOwn() && reading.part() == null) {
                fields.add(field);
            }
        }
        return fields;
    }

    /** A line item's formula is worked out for each new item too, whatever it reads. */
    private static Set<Part> ownParts(Draft draft) {
        var parts = new HashSet<Part>();
        var own = draft.part();
        if (own != null) {
            parts.add(own);
        }
        for (var reading : draft.routes().readings()) {
            var part = reading.part();
            if (part != null && reading.isOwn()) {
                parts.add(part);
            }
        }
        return parts;
    }

    /** Whether the way leads to records that refer to the one it starts at. */
    private static boolean isElsewhere(List<Hop> route) {
        return route.stream().anyMatch(hop -> hop instanceof Hop.Back);
    }
}
