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
import sandpiper.engine.port.RecordStorage.FigureRow;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.Figures.Group;
import sandpiper.engine.record.Figures.Grouping;
import sandpiper.engine.record.Figures.Step;
import sandpiper.engine.record.Figures.Value;
import sandpiper.engine.record.RecordView;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TypeKeyword;

/** Brings what the storage has counted to the groups that were asked for. */
public final class FigureGroups {
    /** More than a chart can show. */
    private static final int MOST = 200;

    /** Quarters of an hour in nearly three years, each with a record. */
    private static final int MOST_IN_TIME = 100_000;

    private FigureGroups() {}

    /** How many rows the storage needs to give for all groups that are shown. */
    public static int mostRows(Grouping grouping) {
        return grouping.step() == null ? MOST : MOST_IN_TIME;
    }

    /**
     * The figures of rows by a field.
     *
     * @param all what all records come to
     * @param rows at most one more than {@link #mostRows}
     * @param zone in which moments belong to a day
     */
    public static Figures of(FigureRow all, List<FigureRow> rows, Grouping grouping, ZoneId zone) {
        int most = mostRows(grouping);
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
