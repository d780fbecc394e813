package sandpiper.engine.read;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Aggregation.Measure;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.Figures.Group;
import sandpiper.engine.record.Figures.Grouping;
import sandpiper.engine.record.Figures.Step;
import sandpiper.engine.record.Figures.Value;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TypeKeyword;

/** Brings what the storage has counted to the groups that were asked for. */
public final class FigureGroups {
    /** More than a chart can show. */
    private static final int MOST = 200;

    /** Quarters of an hour in nearly three years, each with a record. */
    private static final int MOST_IN_TIME = 100_000;

    private FigureGroups() {}

    /**
     * What records come to.
     *
     * @param storage works groups out
     * @param sums stored numbers to add up
     * @param grouping {@code null} for no groups
     * @param zone in which moments belong to a day
     */
    public static Figures of(
            Function<Aggregation, List<Aggregation.Row>> storage,
            List<Field> sums,
            @Nullable Grouping grouping,
            ZoneId zone) {
        var measures = new ArrayList<>(List.of(Measure.COUNT));
        sums.forEach(
                field -> measures.add(new Measure(Aggregation.Function.SUM, FieldPath.of(field))));
        var all = FigureRow.of(storage.apply(Aggregation.ofAll(measures)).getFirst(), sums);
        if (grouping == null) {
            return new Figures(all.count(), all.sums(), List.of(), false);
        }
        int most = grouping.step() == null ? MOST : MOST_IN_TIME;
        boolean inTime = grouping.field().type() instanceof TemporalType;
        var wanted =
                new Aggregation(
                        List.of(
                                new Aggregation.Key(
                                        FieldPath.of(grouping.field()),
                                        isMoment(grouping.field()))),
                        measures,
                        List.of(new Aggregation.Order(inTime ? 0 : 1, true)),
                        0,
                        most + 1);
        var rows = storage.apply(wanted).stream().map(row -> FigureRow.of(row, sums)).toList();
        return grouped(all, rows, most, grouping, zone);
    }

    private static boolean isMoment(Field field) {
        return field.type() instanceof TemporalType temporal
                && temporal.keyword() == TypeKeyword.DATE_TIME;
    }

    /** What records with one value come to. */
    private record FigureRow(@Nullable Object key, long count, List<BigDecimal> sums) {
        static FigureRow of(Aggregation.Row row, List<Field> fields) {
            var sums = new ArrayList<BigDecimal>();
            for (int i = 0; i < fields.size(); i++) {
                var none = BigDecimal.valueOf(0, ((NumberType) fields.get(i).type()).scale());
                sums.add(row.measures().get(i + 1) instanceof BigDecimal sum ? sum : none);
            }
            return new FigureRow(
                    row.keys().isEmpty() ? null : row.keys().getFirst(),
                    (Long) Objects.requireNonNull(row.measures().getFirst()),
                    sums);
        }
    }

    private static Figures grouped(
            FigureRow all, List<FigureRow> rows, int most, Grouping grouping, ZoneId zone) {
        boolean more = rows.size() > most;
        var groups = new LinkedHashMap<Value, Group>();
        for (var row : more ? rows.subList(0, most) : rows) {
            var value = value(row, grouping, zone);
            groups.put(value, plus(groups.getOrDefault(value, none(value, row)), row));
        }
        var ordered = new ArrayList<>(groups.values());
        if (grouping.step() != null) {
            ordered.sort(Comparator.comparing(one -> Objects.toString(one.value().plain(), "")));
        }
        // In time the newest matter; the others come with the largest first.
        boolean cut = ordered.size() > MOST;
        var shown = cut ? ordered.subList(ordered.size() - MOST, ordered.size()) : ordered;
        return new Figures(all.count(), all.sums(), shown, more || cut);
    }

    private static Group none(Value value, FigureRow like) {
        return new Group(value, 0, Collections.nCopies(like.sums().size(), BigDecimal.ZERO));
    }

    private static Group plus(Group group, FigureRow row) {
        var sums = new ArrayList<BigDecimal>();
        for (int i = 0; i < group.sums().size(); i++) {
            sums.add(group.sums().get(i).add(row.sums().get(i)));
        }
        return new Group(group.value(), group.count() + row.count(), sums);
    }

    private static Value value(FigureRow row, Grouping grouping, ZoneId zone) {
        var key = row.key();
        if (key == null) {
            return new Value(null, null);
        }
        if (key instanceof RecordView.Link link) {
            return new Value(link.key(), link.title());
        }
        var type = grouping.field().type();
        if (type instanceof TemporalType temporal && grouping.step() != null) {
            var day =
                    temporal.keyword() == TypeKeyword.DATE
                            ? LocalDate.ofEpochDay((Long) key)
                            : TemporalType.instant((Long) key).atZone(zone).toLocalDate();
            return new Value(begin(day, grouping.step()).toString(), null);
        }
        return new Value(type instanceof BooleanType ? (Long) key != 0 : type.write(key), null);
    }

    private static LocalDate begin(LocalDate day, Step step) {
        return switch (step) {
            case DAY -> day;
            case WEEK -> day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            case MONTH -> day.withDayOfMonth(1);
            case QUARTER -> day.with(IsoFields.DAY_OF_QUARTER, 1);
            case YEAR -> day.withDayOfYear(1);
        };
    }
}
