package sandpiper.store.generated;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.release.FieldPath;
import sandpiper.store.Stores;
import sandpiper.store.generated.Mirror.Row;
import sandpiper.store.generated.Model.FieldSpec;
import sandpiper.store.generated.Model.Kind;
import sandpiper.store.generated.Model.ObjectSpec;

/** Does things with records of a generated package, in an engine and in the mirror alike. */
final class Play implements AutoCloseable {
    private static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);

    private final Path folder;
    private final Model model;
    private final List<String> told = new ArrayList<>();
    private Mirror mirror = new Mirror();
    private Engine engine;
    private int serial;

    /** Objects whose rule may be behind, since a release does not set rules off. */
    private final Set<ObjectSpec> unfollowed = new HashSet<>();

    Play(Path folder, Model model) {
        this.folder = folder;
        this.model = model;
        this.engine = open();
        release();
    }

    private Engine open() {
        return new Engine(Stores.open(folder.resolve("data.db"), CLOCK), CLOCK);
    }

    /** What was done, one action a line. */
    String told() {
        return String.join("\n", told);
    }

    private void release() {
        engine.drafts().push(model.files(), Actor.SYSTEM);
        assertThat(engine.drafts().check().errors()).as(String.valueOf(model.files())).isEmpty();
        assertThat(engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM))
                .isInstanceOf(ReleasePreview.Result.Released.class);
    }

    void act(Choices choices) {
        var object = choices.of(model.objects());
        switch (choices.next(13)) {
            case 0, 1, 2 -> create(object, choices);
            case 3, 4 -> change(object, choices, false);
            case 5 -> change(object, choices, true);
            case 6 -> move(object, choices);
            case 7 -> removeOrRestore(object, choices);
            case 8 -> importRows(object, choices);
            case 9 -> call(object, choices);
            case 10 -> exchangeFormula(object, choices);
            case 11 -> takeAwayAndBack();
            default -> restart();
        }
    }

    private void create(ObjectSpec object, Choices choices) {
        int number = ++serial;
        var values = values(object, choices, true);
        var asked = new HashMap<>(values);
        asked.putAll(object.keyValues(number));
        told.add("create %s %s".formatted(object.name(), asked));
        settle(
                write(
                        object,
                        (live, type) ->
                                new RecordCommand.Create(
                                        type, live.release().everythingOf(type), asked),
                        false),
                after -> after.create(object, number, values));
    }

    private void change(ObjectSpec object, Choices choices, boolean save) {
        var row = one(object, choices, false);
        if (row == null) {
            return;
        }
        var values = values(object, choices, false);
        told.add(
                "%s %s %s %s"
                        .formatted(save ? "save" : "change", object.name(), row.key(), values));
        settle(
                change(object, row, values, save),
                after -> after.change(after.row(object, row.key()), values));
    }

    private Outcome change(
            ObjectSpec object, Row row, Map<String, @Nullable Object> values, boolean save) {
        return write(
                object,
                (live, type) -> {
                    var tree = live.release().everythingOf(type);
                    return save
                            ? new RecordCommand.Save(
                                    type, tree, tree, row.key(), values, Map.of(), false, null)
                            : new RecordCommand.Change(type, tree, row.key(), values, null);
                },
                false);
    }

    private void move(ObjectSpec object, Choices choices) {
        var row = one(object, choices, false);
        var links =
                object.fields().stream().filter(field -> field.kind() == Kind.REFERENCE).toList();
        if (row == null || links.isEmpty()) {
            return;
        }
        var link = choices.of(links);
        var to = one(link.to(), choices, false);
        var values = new HashMap<String, @Nullable Object>();
        values.put(link.name(), to == null ? null : to.key());
        told.add("move %s %s %s".formatted(object.name(), row.key(), values));
        settle(
                change(object, row, values, false),
                after -> after.change(after.row(object, row.key()), values));
    }

    private void removeOrRestore(ObjectSpec object, Choices choices) {
        var retired = one(object, choices, true);
        if (retired != null && choices.chance(2)) {
            told.add("restore %s %s".formatted(object.name(), retired.key()));
            settle(
                    write(
                            object,
                            (_, type) -> new RecordCommand.Restore(type, retired.key()),
                            false),
                    after -> after.retire(after.row(object, retired.key()), false));
            return;
        }
        var row = one(object, choices, false);
        if (row == null) {
            return;
        }
        told.add("remove %s %s".formatted(object.name(), row.key()));
        var outcome =
                write(object, (_, type) -> new RecordCommand.Remove(type, row.key(), null), false);
        if (object.deletes() && mirror.isReferredTo(row)) {
            assertThat(outcome).isInstanceOf(Outcome.Refused.class);
            return;
        }
        settle(
                outcome,
                after -> {
                    var there = after.row(object, row.key());
                    if (object.deletes()) {
                        after.delete(there);
                    } else {
                        after.retire(there, true);
                    }
                });
    }

    /** Rows of a file: new ones and changes, each value as text. */
    private void importRows(ObjectSpec object, Choices choices) {
        var after = mirror.copy();
        var makers = new ArrayList<Function<LiveRelease, Request>>();
        var told = new ArrayList<Object>();
        var all = new ArrayList<Map<String, @Nullable Object>>();
        var keys = new ArrayList<String>();
        var fresh = new ArrayList<String>();
        int rows = 1 + choices.next(3);
        for (int i = 0; i < rows; i++) {
            var row = choices.chance(2) ? one(object, choices, false) : null;
            int number = row == null ? ++serial : row.serial();
            var values = values(object, choices, row == null);
            values.remove("lines");
            if (row == null) {
                after.create(object, number, values);
            } else {
                after.change(after.row(object, row.key()), values);
            }
            var asked = new HashMap<>(values);
            asked.putAll(object.keyValues(number));
            told.add(asked);
            all.add(asked);
            keys.add(object.key(number));
            if (row == null) {
                fresh.add(object.key(number));
            }
            makers.add(live -> {
                var type = live.release().object(object.name());
                var tree = live.release().everythingOf(type);
                return new Request(
                        new RecordCommand.Save(
                                type, tree, tree, null, asked, Map.of(), false, null),
                        Actor.SYSTEM,
                        "import",
                        true);
            });
        }
        for (var field : object.fields()) {
            if (field.kind() == Kind.REFERENCE
                    && field.to() == object
                    && !field.isDerived()
                    && !fresh.isEmpty()) {
                int at = choices.next(all.size());
                var key = fresh.get(choices.next(fresh.size()));
                all.get(at).put(field.name(), key);
                after.change(after.row(object, keys.get(at)), Map.of(field.name(), key));
            }
        }
        this.told.add("import %s %s".formatted(object.name(), told));
        var outcomes = engine.records().write(makers, Grouping.TOGETHER);
        if (outcomes.stream().allMatch(one -> one instanceof Outcome.Success)) {
            mirror = after;
        } else {
            // Rows are kept or refused one by one; which, the simple way does not tell.
            assertRefusal(
                    outcomes.stream()
                            .filter(one -> one instanceof Outcome.Refused)
                            .findFirst()
                            .orElseThrow(),
                    after);
            takeOver();
        }
    }

    private void call(ObjectSpec object, Choices choices) {
        var row = one(object, choices, false);
        if (row == null) {
            return;
        }
        if (choices.chance(3) && model.pointing(object) != null) {
            spawn(object, row, choices);
            return;
        }
        boolean lines = !object.lines().isEmpty() && choices.chance(2);
        long by = choices.next(7) - 2L;
        told.add(
                "call %s %s %s %d"
                        .formatted(lines ? "restock" : "bump", object.name(), row.key(), by));
        var outcome =
                write(
                        object,
                        (_, type) ->
                                new RecordCommand.Call(
                                        type,
                                        row.key(),
                                        lines ? "restock" : "bump",
                                        Map.of("by", by),
                                        null),
                        false);
        settle(
                outcome,
                after -> {
                    var there = after.row(object, row.key());
                    if (lines) {
                        there.lines()
                                .forEach(line ->
                                        after.set(
                                                line,
                                                "units",
                                                plus(object.lines().getFirst(), line, by)));
                        var made = new HashMap<String, @Nullable Object>();
                        made.put("units", by);
                        after.line(there, made);
                    } else {
                        after.set(there, "size", plus(object.fields().getFirst(), there, by));
                    }
                });
        assertReturned(outcome, object, row.key());
    }

    /** A function that makes a record which refers to the one it is called on. */
    private void spawn(ObjectSpec object, Row row, Choices choices) {
        var link = Objects.requireNonNull(model.pointing(object));
        int number = ++serial;
        long by = choices.next(7) - 2L;
        told.add("spawn %s for %s %s %d".formatted(link, row.key(), number, by));
        var outcome =
                write(
                        object,
                        (_, type) ->
                                new RecordCommand.Call(
                                        type,
                                        row.key(),
                                        "spawn",
                                        Map.of(
                                                "zone",
                                                "z" + number % 3,
                                                "place",
                                                (long) number,
                                                "by",
                                                by),
                                        null),
                        false);
        settle(
                outcome,
                after -> {
                    var values = new HashMap<String, @Nullable Object>();
                    values.put(link.name(), row.key());
                    values.put("size", by + 1);
                    after.create(link.owner(), number, values);
                });
        assertReturned(outcome, object, row.key());
    }

    private void assertReturned(Outcome outcome, ObjectSpec object, String key) {
        if (outcome instanceof Outcome.Success done && !object.derived().isEmpty()) {
            var last = object.derived().getLast();
            assertThat(plain(Objects.requireNonNull(done.result()).value()))
                    .as("what the function returned, %s", last)
                    .isEqualTo(
                            plain(
                                    expected(
                                            new Reckoner(mirror, model.rounding().mode()),
                                            mirror.row(object, key),
                                            last)));
        }
    }

    private static @Nullable Object plus(FieldSpec field, Row row, long by) {
        return row.value(field) instanceof Long size ? (Object) (size + by) : null;
    }

    private void exchangeFormula(ObjectSpec object, Choices choices) {
        if (object.derived().isEmpty()) {
            return;
        }
        var field = choices.of(object.derived());
        var before = field.formula();
        var next = ModelMaker.again(model, field, choices);
        boolean usedByRules =
                model.objects().stream()
                        .anyMatch(one -> one.followed() != null || one.bounded() != null);
        field.formula(next);
        boolean unfit =
                usedByRules
                        && model.objects().stream()
                                .anyMatch(one ->
                                        one.followed() != null
                                                && ModelMaker.isWorkedOutOnRead(one.followed()));
        boolean same = next.text().equals(Objects.requireNonNull(before).text());
        if (unfit
                || same
                || new Reckoner(mirror, model.rounding().mode()).everything().isImpossible()) {
            field.formula(Objects.requireNonNull(before));
            return;
        }
        told.add("release %s = %s".formatted(field, next.text()));
        release();
        unfollowed.addAll(model.objects());
    }

    /** Releases nothing at all, and goes back: everything must be as it was. */
    private void takeAwayAndBack() {
        told.add("away and back");
        int before = engine.live().number();
        engine.drafts()
                .push(
                        Map.of(
                                "marina/package.yaml",
                                Objects.requireNonNull(model.files().get("marina/package.yaml"))),
                        Actor.SYSTEM);
        assertThat(engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM))
                .isInstanceOf(ReleasePreview.Result.Released.class);
        assertThat(engine.live().release().objects()).isEmpty();
        assertThat(
                        engine.releases()
                                .takeBack(
                                        before,
                                        new Releases.Order(
                                                "", new Releases.Accepted(false, false), false),
                                        Actor.SYSTEM))
                .get()
                .isInstanceOf(ReleasePreview.Result.Released.class);
        assertThat(engine.releases().kept().all()).isEmpty();
    }

    private void restart() {
        told.add("restart");
        engine.close();
        engine = open();
    }

    private interface CommandMaker {
        RecordCommand make(LiveRelease live, sandpiper.model.release.ObjectType type);
    }

    private Outcome write(ObjectSpec object, CommandMaker maker, boolean textual) {
        return engine.records()
                .write(live ->
                        new Request(
                                maker.make(live, live.release().object(object.name())),
                                Actor.SYSTEM,
                                "test",
                                textual));
    }

    /** Does the same in the mirror, unless it was refused, and then for a reason. */
    private void settle(Outcome outcome, java.util.function.Consumer<Mirror> change) {
        var after = mirror.copy();
        change.accept(after);
        if (outcome instanceof Outcome.Success) {
            mirror = after;
        } else {
            assertRefusal(outcome, after);
            told.add("  refused");
        }
    }

    /** What was refused would indeed have broken something. */
    private void assertRefusal(Outcome outcome, Mirror after) {
        var refused = (Outcome.Refused) outcome;
        var reckoner = new Reckoner(after, model.rounding().mode()).everything();
        for (var fault : refused.faults()) {
            boolean right =
                    (fault.code() == RecordCode.CHECK_FAILED
                                    && !after.all().stream().allMatch(reckoner::isInBounds))
                            || (fault.code() == RecordCode.CANNOT_BE_STORED
                                    && reckoner.isImpossible());
            assertThat(right).as("refused with %s", fault).isTrue();
        }
    }

    /** Reads what is stored by now into the mirror. */
    private void takeOver() {
        var read = new Mirror();
        for (var object : model.objects()) {
            for (var plain : list(object, null, List.of())) {
                var key =
                        object.composite()
                                ? ((Long) Objects.requireNonNull(plain.get("place"))).intValue()
                                : Integer.parseInt(String.valueOf(plain.get("code")).substring(1));
                var values = new HashMap<String, @Nullable Object>();
                for (var field : object.fields()) {
                    if (!field.isDerived()) {
                        values.put(field.name(), plain.get(field.name()));
                    }
                }
                var row = read.create(object, key, values);
                var old = mirror.find(object, row.key());
                if (old != null) {
                    old.lines()
                            .forEach(line -> {
                                var copied = new HashMap<String, @Nullable Object>();
                                object.lines()
                                        .forEach(field ->
                                                copied.put(field.name(), line.value(field)));
                                read.line(row, copied);
                            });
                    read.retire(row, old.retired());
                }
            }
        }
        mirror = read;
    }

    private @Nullable Row one(ObjectSpec object, Choices choices, boolean retired) {
        var rows = mirror.of(object).stream().filter(row -> row.retired() == retired).toList();
        return rows.isEmpty() ? null : choices.of(rows);
    }

    private Map<String, @Nullable Object> values(ObjectSpec object, Choices choices, boolean all) {
        var values = new HashMap<String, @Nullable Object>();
        for (var field : object.fields()) {
            if (!field.isDerived() && (all || choices.chance(3))) {
                values.put(field.name(), value(field, choices));
            }
        }
        if (!object.lines().isEmpty() && (all || choices.chance(3))) {
            var lines = new ArrayList<Map<String, @Nullable Object>>();
            for (int i = choices.next(4); i > 0; i--) {
                var line = new HashMap<String, @Nullable Object>();
                for (var field : object.lines()) {
                    if (!field.isDerived()) {
                        line.put(field.name(), value(field, choices));
                    }
                }
                lines.add(line);
            }
            values.put("lines", lines);
        }
        return values;
    }

    private @Nullable Object value(FieldSpec field, Choices choices) {
        int n = choices.next(12);
        if (n == 11) {
            return null;
        }
        return switch (field.kind()) {
            case INTEGER -> n - 2L;
            case DECIMAL, FINE, AMOUNT, PERCENT -> BigDecimal.valueOf(n * 37L - 50, 2);
            case MONEY -> Map.of("value", BigDecimal.valueOf(n * 37L, 2), "currency", "EUR");
            case BOOLEAN -> n % 2 == 1;
            case TEXT -> "n" + n;
            case LOCALISED -> Map.of("en", "n" + n, "de", "d" + n);
            case CHOICE -> n % 2 == 0 ? "high" : "low";
            case DATE -> "2026-05-%02d".formatted(n + 1);
            case TIME -> "%02d:30:00".formatted(n);
            case MOMENT -> "2026-05-%02dT10:00:00Z".formatted(n + 1);
            case DURATION -> "P%dD".formatted(n + 1);
            case EMAIL -> "n%d@example.org".formatted(n);
            case PHONE -> "+49 40 12345" + n;
            case ADDRESS -> "https://example.org/" + n;
            case UUID -> "00000000-0000-4000-8000-0000000000%02d".formatted(n);
            case REFERENCE -> {
                var to = one(field.to(), choices, false);
                yield to == null ? null : to.key();
            }
        };
    }

    /** Every derived value, in answers, lists, filters and orders, is what it is from scratch. */
    void assertAllRight() {
        var reckoner = new Reckoner(mirror, model.rounding().mode()).everything();
        for (var object : model.objects()) {
            var rows = mirror.of(object);
            var inUse = rows.stream().filter(row -> !row.retired()).toList();
            rows.forEach(row -> assertRow(reckoner, row, show(row)));
            var listed = list(object, null, List.of());
            assertThat(listed).hasSameSizeAs(inUse);
            var byKey =
                    listed.stream().collect(Collectors.toMap(one -> key(object, one), one -> one));
            inUse.forEach(
                    row -> assertRow(reckoner, row, Objects.requireNonNull(byKey.get(row.key()))));
            for (var field : object.derived()) {
                if (!ModelMaker.isWorkedOutOnRead(field)) {
                    assertFilters(reckoner, field, inUse);
                    assertOrder(reckoner, field, inUse);
                }
            }
        }
    }

    private void assertRow(Reckoner reckoner, Row row, Map<String, @Nullable Object> answer) {
        for (var field : row.object().fields()) {
            assertThat(plain(answer.get(field.name())))
                    .as("%s of %s: %s", field, row.key(), text(field))
                    .isEqualTo(plain(expected(reckoner, row, field)));
        }
        if (!row.object().lines().isEmpty()) {
            var lines = (List<?>) Objects.requireNonNull(answer.get("lines"));
            assertThat(lines).hasSameSizeAs(row.lines());
            for (int i = 0; i < lines.size(); i++) {
                for (var field : row.object().lines()) {
                    assertThat(plain(((Map<?, ?>) lines.get(i)).get(field.name())))
                            .as("%s of %s, %d: %s", field, row.key(), i, text(field))
                            .isEqualTo(plain(expected(reckoner, row.lines().get(i), field)));
                }
            }
        }
        var followed = row.object().followed();
        if (followed != null && !unfollowed.contains(row.object())) {
            assertThat(plain(answer.get("seen")))
                    .as("what the rule saw of %s of %s: %s", followed, row.key(), text(followed))
                    .isEqualTo(plain(expected(reckoner, row, followed)));
        }
        if (!unfollowed.contains(row.object())) {
            assertThat(reckoner.isInBounds(row))
                    .as("the check on %s of %s", row.object().bounded(), row.key())
                    .isTrue();
        }
    }

    private static String text(FieldSpec field) {
        var formula = field.formula();
        return formula == null ? "stored" : formula.text();
    }

    private static @Nullable Object expected(Reckoner reckoner, Row row, FieldSpec field) {
        return field.isDerived()
                ? Reckoner.answered(field, reckoner.value(row, field))
                : row.value(field);
    }

    /** Numbers by their value, so that 1.50 is 1.5. */
    private static @Nullable Object plain(@Nullable Object value) {
        return switch (value) {
            case BigDecimal number -> number.stripTrailingZeros().toPlainString();
            case Long number -> BigDecimal.valueOf(number).stripTrailingZeros().toPlainString();
            case Map<?, ?> map -> {
                var plain = new HashMap<Object, @Nullable Object>();
                map.forEach((name, one) -> {
                    if (one != null) {
                        plain.put(name, plain(one));
                    }
                });
                yield plain;
            }
            case null -> null;
            default -> value;
        };
    }

    private Map<String, @Nullable Object> show(Row row) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(row.object().name());
                    var tree = live.release().everythingOf(type);
                    return PlainRecords.of(
                            tree,
                            engine.records()
                                    .find(live, session, type, row.key(), tree)
                                    .orElseThrow());
                });
    }

    private List<Map<String, @Nullable Object>> list(
            ObjectSpec object, @Nullable String filter, List<String> sorts) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object.name());
                    var tree = live.release().everythingOf(type);
                    var condition =
                            filter == null
                                    ? null
                                    : ((Checked.Accepted)
                                                    ConditionChecker.check(
                                                            filter,
                                                            live.release().recordType(type),
                                                            CLOCK))
                                            .condition();
                    var query =
                            new Query(
                                    type,
                                    tree,
                                    condition,
                                    null,
                                    sorts.stream()
                                            .map(name ->
                                                    new Query.Sort(
                                                            new FieldPath(
                                                                    List.of(
                                                                            type.fields()
                                                                                    .get(name))),
                                                            false))
                                            .toList(),
                                    false,
                                    null,
                                    0,
                                    500,
                                    false,
                                    Query.Retired.WITHOUT);
                    return engine.records().page(live, session, query).records().stream()
                            .map(view -> PlainRecords.of(tree, view))
                            .toList();
                });
    }

    private void assertFilters(Reckoner reckoner, FieldSpec field, List<Row> rows) {
        for (var row : rows.stream().limit(2).toList()) {
            var value = reckoner.value(row, field);
            var wanted =
                    rows.stream()
                            .filter(one -> Objects.equals(reckoner.value(one, field), value))
                            .map(Row::key)
                            .toList();
            var found = list(row.object(), field.name() + " = " + literal(value), List.of());
            assertThat(found.stream().map(one -> key(row.object(), one)))
                    .as("%s = %s", field, value)
                    .containsExactlyInAnyOrderElementsOf(wanted);
        }
    }

    private static String literal(@Nullable Object value) {
        return switch (value) {
            case null -> "null";
            case BigDecimal number when number.signum() < 0 ->
                    "-" + number.negate().toPlainString();
            case BigDecimal number -> number.toPlainString();
            case Boolean flag -> flag.toString();
            case java.time.LocalDate date -> "@\"" + date + "\"";
            default -> "\"" + value + "\"";
        };
    }

    private static String key(ObjectSpec object, Map<String, @Nullable Object> plain) {
        return object.composite()
                ? plain.get("zone") + "," + plain.get("place")
                : String.valueOf(plain.get("code"));
    }

    @SuppressWarnings("unchecked")
    private void assertOrder(Reckoner reckoner, FieldSpec field, List<Row> rows) {
        if (field.kind() == Kind.TEXT) {
            return;
        }
        var wanted =
                rows.stream()
                        .map(row -> reckoner.value(row, field))
                        .filter(Objects::nonNull)
                        .map(value -> (Comparable<Object>) value)
                        .sorted(Comparator.naturalOrder())
                        .map(value -> plain(Reckoner.answered(field, value)))
                        .toList();
        if (rows.isEmpty()) {
            return;
        }
        var found =
                list(rows.getFirst().object(), null, List.of(field.name())).stream()
                        .map(one -> plain(one.get(field.name())))
                        .filter(Objects::nonNull)
                        .toList();
        assertThat(found).as("order by %s", field).isEqualTo(wanted);
    }

    @Override
    public void close() {
        engine.close();
    }
}
