package sandpiper.store.generated;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.Rounding;
import sandpiper.store.generated.Model.FieldSpec;
import sandpiper.store.generated.Model.Kind;
import sandpiper.store.generated.Model.ObjectSpec;
import sandpiper.store.generated.Model.Sort;
import sandpiper.store.generated.Node.Start;

/** Makes a package, and formulas that fit it, from choices. */
final class ModelMaker {
    private static final List<String> NAMES = List.of("Pier", "Berth", "Vessel", "Stay", "Buoy");
    private static final List<Kind> FURTHER =
            List.of(
                    Kind.DATE,
                    Kind.AMOUNT,
                    Kind.PERCENT,
                    Kind.MONEY,
                    Kind.LOCALISED,
                    Kind.CHOICE,
                    Kind.TIME,
                    Kind.MOMENT,
                    Kind.DURATION,
                    Kind.EMAIL,
                    Kind.PHONE,
                    Kind.ADDRESS,
                    Kind.UUID);
    private static final List<Kind> DERIVED =
            List.of(
                    Kind.INTEGER,
                    Kind.FINE,
                    Kind.DECIMAL,
                    Kind.BOOLEAN,
                    Kind.TEXT,
                    Kind.DATE,
                    Kind.AMOUNT);
    private static final List<String> TOTALS = List.of("sum", "count", "max", "min", "mean");

    private final Model model = new Model();

    /** Where an expression stands: what is nearest, and what the whole is about. */
    private record Scope(
            ObjectSpec near,
            boolean line,
            ObjectSpec root,
            boolean rootLine,
            boolean inFilter,
            int rank) {
        boolean sees(FieldSpec field) {
            return field.rank() < rank;
        }

        Scope inside(ObjectSpec object, boolean ofLine) {
            return new Scope(object, ofLine, root, rootLine, true, rank);
        }
    }

    /** One list for each object: its first decides what it is, each further one makes a formula. */
    static Model make(List<List<List<Integer>>> genes) {
        var maker = new ModelMaker();
        maker.model.rounding(
                new Choices(genes.getFirst().getLast().reversed()).of(List.of(Rounding.values())));
        for (int i = 0; i < genes.size(); i++) {
            var shape = shape(genes.get(i));
            maker.model
                    .objects()
                    .add(new ObjectSpec(NAMES.get(i), shape.chance(3), shape.chance(3)));
        }
        for (int i = 0; i < genes.size(); i++) {
            maker.fields(maker.model.objects().get(i), shape(genes.get(i)), genes.get(i), i);
        }
        for (int i = 0; i < genes.size(); i++) {
            maker.formulas(maker.model.objects().get(i), genes.get(i));
        }
        return maker.model;
    }

    private static Choices shape(List<List<Integer>> genes) {
        return new Choices(genes.isEmpty() ? List.of() : genes.getFirst());
    }

    private void fields(ObjectSpec object, Choices shape, List<List<Integer>> genes, int index) {
        shape.next(3);
        shape.next(3);
        object.fields().add(new FieldSpec(object, false, "size", Kind.INTEGER, null, -1));
        object.fields().add(new FieldSpec(object, false, "depth", Kind.DECIMAL, null, -1));
        object.fields().add(new FieldSpec(object, false, "open", Kind.BOOLEAN, null, -1));
        object.fields().add(new FieldSpec(object, false, "name", Kind.TEXT, null, -1));
        int references = index == 0 ? shape.next(2) : 1 + shape.next(2);
        for (int i = 0; i < references; i++) {
            var to =
                    model.objects()
                            .get(Math.floorMod(index - 1 - shape.next(4), model.objects().size()));
            object.fields().add(new FieldSpec(object, false, "r" + i, Kind.REFERENCE, to, -1));
        }
        int further = shape.next(4);
        for (int i = 0; i < further; i++) {
            object.fields().add(new FieldSpec(object, false, "x" + i, shape.of(FURTHER), null, -1));
        }
        boolean parts = shape.chance(2);
        int rank = index * 100;
        if (parts) {
            object.lines().add(new FieldSpec(object, true, "units", Kind.INTEGER, null, -1));
            object.lines().add(new FieldSpec(object, true, "price", Kind.DECIMAL, null, -1));
            object.lines()
                    .add(
                            new FieldSpec(
                                    object,
                                    true,
                                    "at",
                                    Kind.REFERENCE,
                                    shape.of(model.objects()),
                                    -1));
            object.lines().add(new FieldSpec(object, true, "worth", Kind.FINE, null, rank++));
        }
        for (int i = 1; i < genes.size(); i++) {
            var kind = new Choices(genes.get(i)).of(DERIVED);
            object.fields().add(new FieldSpec(object, false, "f" + i, kind, null, rank++));
        }
    }

    private void formulas(ObjectSpec object, List<List<Integer>> genes) {
        for (var field : object.lines()) {
            if (field.isDerived()) {
                field.formula(formula(field, new Choices(genes.getFirst().reversed())));
            }
        }
        var derived = object.derived();
        for (int i = 0; i < derived.size(); i++) {
            var field = derived.get(i);
            var choices = new Choices(genes.get(i + 1));
            choices.next(DERIVED.size());
            field.formula(formula(field, choices));
        }
        var followed = derived.stream().filter(field -> !isWorkedOutOnRead(field)).toList();
        if (!followed.isEmpty()) {
            object.followed(followed.getLast());
        }
        followed.stream()
                .filter(field -> field.kind().sort == Sort.NUMBER)
                .findFirst()
                .ifPresent(object::bounded);
    }

    /** Whether a formula reads all records of an object, itself or through others. */
    static boolean isWorkedOutOnRead(FieldSpec field) {
        var formula = field.formula();
        return formula != null && readsAll(formula);
    }

    private static boolean readsAll(Node node) {
        return switch (node) {
            case Node.CountAll _ -> true;
            case Node.Number _, Node.Words _, Node.Day _ -> false;
            case Node.Path path -> isWorkedOutOnRead(path.field());
            case Node.Total total ->
                    (total.field() != null && isWorkedOutOnRead(total.field()))
                            || (total.many().where() != null && readsAll(total.many().where()));
            case Node.Calculation(_, var left, var right) -> readsAll(left) || readsAll(right);
            case Node.Comparison(_, var left, var right) -> readsAll(left) || readsAll(right);
            case Node.IsEmpty(var value, _) -> readsAll(value);
            case Node.Both(_, var left, var right) -> readsAll(left) || readsAll(right);
            case Node.Not(var value) -> readsAll(value);
            case Node.Choice(var condition, var then, var otherwise) ->
                    readsAll(condition) || readsAll(then) || readsAll(otherwise);
            case Node.Joined(var left, var right) -> readsAll(left) || readsAll(right);
            case Node.Spelled(var number) -> readsAll(number);
            case Node.Length(var words) -> readsAll(words);
            case Node.Later(var date, _) -> readsAll(date);
        };
    }

    /** A formula for a field; may be asked again for another. */
    Node formula(FieldSpec field, Choices choices) {
        var scope =
                new Scope(
                        field.owner(),
                        field.ofLine(),
                        field.owner(),
                        field.ofLine(),
                        false,
                        field.rank());
        return switch (field.kind().sort) {
            case NUMBER -> number(choices, scope, 2);
            case AMOUNT -> amount(choices, scope, 2);
            case FLAG -> flag(choices, scope, 2);
            case WORDS -> words(choices, scope, 2);
            default -> date(choices, scope);
        };
    }

    static Node again(Model model, FieldSpec field, Choices choices) {
        var maker = new ModelMaker();
        maker.model.objects().addAll(model.objects());
        return maker.formula(field, choices);
    }

    private Node number(Choices choices, Scope scope, int depth) {
        switch (depth == 0 ? choices.next(3) : choices.next(9)) {
            case 0 -> {
                return path(choices, scope, Sort.NUMBER);
            }
            case 1 -> {
                return total(choices, scope, depth, Sort.NUMBER);
            }
            case 2 -> {
                return literal(choices);
            }
            case 3, 4, 5 -> {
                var operator = "+*-/".charAt(choices.next(4));
                return new Node.Calculation(
                        operator,
                        number(choices, scope, depth - 1),
                        number(choices, scope, depth - 1));
            }
            case 6 -> {
                return new Node.Choice(
                        flag(choices, scope, depth - 1),
                        number(choices, scope, depth - 1),
                        number(choices, scope, depth - 1));
            }
            case 7 -> {
                return new Node.Length(words(choices, scope, depth - 1));
            }
            default -> {
                return scope.inFilter() || scope.line()
                        ? literal(choices)
                        : new Node.CountAll(choices.of(model.objects()), null);
            }
        }
    }

    private static Node literal(Choices choices) {
        return new Node.Number(BigDecimal.valueOf(choices.next(9) - 2L));
    }

    /** A field of a sort by up to two references; a number when there is none. */
    private Node path(Choices choices, Scope scope, Sort sort) {
        boolean outer = scope.inFilter() && choices.chance(2);
        var start = outer ? Start.THIS : Start.NEAR;
        var object = outer ? scope.root() : scope.near();
        boolean line = outer ? scope.rootLine() : scope.line();
        var references = new ArrayList<FieldSpec>();
        int hops = choices.next(3);
        for (int i = 0; i < hops; i++) {
            var links = among(object, line, scope, field -> field.kind() == Kind.REFERENCE);
            if (links.isEmpty()) {
                break;
            }
            var link = choices.of(links);
            references.add(link);
            object = link.to();
            line = false;
        }
        var fields = among(object, line, scope, field -> field.kind().sort == sort);
        return fields.isEmpty()
                ? nothing(sort, choices)
                : new Node.Path(start, references, choices.of(fields));
    }

    private static List<FieldSpec> among(
            ObjectSpec object, boolean line, Scope scope, Predicate<FieldSpec> wanted) {
        var all = new ArrayList<FieldSpec>(line ? object.lines() : object.fields());
        // A line item sees the fields of its record as well, unless it stands in a filter.
        if (line && !scope.inFilter()) {
            all.addAll(object.fields());
        }
        return all.stream().filter(wanted).filter(scope::sees).toList();
    }

    private static Node nothing(Sort sort, Choices choices) {
        return switch (sort) {
            case NUMBER -> literal(choices);
            case WORDS -> new Node.Words("n" + choices.next(5));
            case FLAG -> new Node.Comparison("<", literal(choices), literal(choices));
            default -> throw new IllegalStateException("There is always one " + sort);
        };
    }

    private @Nullable Node existing(Choices choices, Scope scope, Sort sort) {
        var fields = among(scope.near(), scope.line(), scope, field -> field.kind().sort == sort);
        return fields.isEmpty() ? null : new Node.Path(Start.NEAR, List.of(), choices.of(fields));
    }

    /** A total over line items or records that refer to one, filtered or not. */
    private Node total(Choices choices, Scope scope, int depth, Sort sort) {
        var object = scope.near();
        boolean fromLine = scope.line();
        var references = new ArrayList<FieldSpec>();
        if (fromLine || choices.chance(4)) {
            var links = among(object, fromLine, scope, field -> field.kind() == Kind.REFERENCE);
            if (!links.isEmpty()) {
                var link = choices.of(links);
                references.add(link);
                object = link.to();
                fromLine = false;
            }
        }
        if (fromLine) {
            return literal(choices);
        }
        var back = new ArrayList<FieldSpec>();
        var reached = object;
        boolean lines = !reached.lines().isEmpty() && choices.chance(3);
        if (!lines) {
            var pointing = pointing(reached);
            if (pointing.isEmpty()) {
                if (reached.lines().isEmpty()) {
                    return literal(choices);
                }
                lines = true;
            } else {
                var by = choices.of(pointing);
                back.add(by);
                reached = by.owner();
                if (choices.chance(4) && !pointing(reached).isEmpty()) {
                    var further = choices.of(pointing(reached));
                    back.add(further);
                    reached = further.owner();
                } else if (!reached.lines().isEmpty() && choices.chance(4)) {
                    lines = true;
                }
            }
        }
        var inside = scope.inside(reached, lines);
        var where = depth > 0 && choices.chance(2) ? flag(choices, inside, depth - 1) : null;
        var many = new Node.Many(Start.NEAR, references, back, lines, where);
        var function = sort == Sort.AMOUNT ? "sum" : choices.of(TOTALS);
        if (function.equals("count") && choices.next(2) == 0) {
            return new Node.Total(function, many, List.of(), null);
        }
        var further = new ArrayList<FieldSpec>();
        var from = reached;
        boolean line = lines;
        if (choices.chance(4)) {
            var links = among(from, line, inside, field -> field.kind() == Kind.REFERENCE);
            if (!links.isEmpty()) {
                var link = choices.of(links);
                further.add(link);
                from = link.to();
                line = false;
            }
        }
        var fields = among(from, line, inside, field -> field.kind().sort == sort);
        return fields.isEmpty()
                ? sort == Sort.NUMBER
                        ? new Node.Total("count", many, List.of(), null)
                        : literal(choices)
                : new Node.Total(function, many, further, choices.of(fields));
    }

    private List<FieldSpec> pointing(ObjectSpec to) {
        return model.objects().stream()
                .flatMap(object -> object.fields().stream())
                .filter(field -> field.kind() == Kind.REFERENCE && field.to() == to)
                .toList();
    }

    private Node flag(Choices choices, Scope scope, int depth) {
        switch (depth == 0 ? choices.next(4) : choices.next(7)) {
            case 0 -> {
                return path(choices, scope, Sort.FLAG);
            }
            case 1 -> {
                return new Node.Comparison(
                        choices.of(List.of("<", ">=", "=", "!=", ">", "<=")),
                        path(choices, scope, Sort.NUMBER),
                        literal(choices));
            }
            case 2 -> {
                return new Node.IsEmpty(path(choices, scope, Sort.NUMBER), choices.chance(2));
            }
            case 3 -> {
                return new Node.Comparison(
                        choices.of(List.of("=", "!=")),
                        path(choices, scope, Sort.WORDS),
                        new Node.Words("n" + choices.next(5)));
            }
            case 4 -> {
                return new Node.Comparison(
                        choices.of(List.of("<", ">=", "=", "!=", ">")),
                        number(choices, scope, depth - 1),
                        number(choices, scope, depth - 1));
            }
            case 5 -> {
                return new Node.Both(
                        choices.chance(2),
                        flag(choices, scope, depth - 1),
                        flag(choices, scope, depth - 1));
            }
            default -> {
                return new Node.Not(flag(choices, scope, depth - 1));
            }
        }
    }

    private Node words(Choices choices, Scope scope, int depth) {
        switch (depth == 0 ? 0 : choices.next(4)) {
            case 1 -> {
                return new Node.Joined(
                        words(choices, scope, depth - 1),
                        new Node.Spelled(total(choices, scope, 0, Sort.NUMBER)));
            }
            case 2 -> {
                return new Node.Joined(words(choices, scope, depth - 1), new Node.Words("/"));
            }
            case 3 -> {
                return new Node.Choice(
                        flag(choices, scope, depth - 1),
                        words(choices, scope, depth - 1),
                        new Node.Words("none"));
            }
            default -> {
                return path(choices, scope, Sort.WORDS);
            }
        }
    }

    private Node amount(Choices choices, Scope scope, int depth) {
        var total = choices.chance(2) ? total(choices, scope, depth, Sort.AMOUNT) : null;
        var own = existing(choices, scope, Sort.AMOUNT);
        if (total instanceof Node.Total) {
            return own == null ? total : new Node.Calculation('+', total, own);
        }
        return own == null
                ? number(choices, scope, depth)
                : new Node.Calculation('*', own, number(choices, scope, depth - 1));
    }

    private Node date(Choices choices, Scope scope) {
        var total = choices.chance(2) ? total(choices, scope, 1, Sort.DATE) : null;
        if (total instanceof Node.Total found) {
            var which = found.function().equals("min") ? "min" : "max";
            return found.field() == null || found.field().kind().sort != Sort.DATE
                    ? fixedDate()
                    : new Node.Total(which, found.many(), found.references(), found.field());
        }
        var own = existing(choices, scope, Sort.DATE);
        return own == null ? fixedDate() : new Node.Later(own, choices.next(5));
    }

    private static Node fixedDate() {
        return new Node.Day(LocalDate.of(2026, 5, 1));
    }
}
