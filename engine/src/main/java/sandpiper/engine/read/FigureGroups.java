package sandpiper.engine.read;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage.FigureRow;
import sandpiper.engine.read.Figures.Group;
import sandpiper.engine.read.Figures.Grouping;
import sandpiper.engine.read.Figures.Step;
import sandpiper.engine.read.Figures.Value;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TypeKeyword;

/** Brings what the storage has counted to the groups that were asked for. */
public final class FigureGroups {
    /** More than a chart can show. */
    private static final int MOST = 200;

    private static final Comparator<Group> LARGEST_FIRST =
            Comparator.comparingLong(Group::count).reversed();

    private FigureGroups() {}

    /**
     * The figures of rows that together hold every record once.
     *
     * @param grouping {@code null} for no groups
     * @param zone in which moments belong to a day
     */
    public static Figures of(
            List<FigureRow> rows, int sums, @Nullable Grouping grouping, ZoneId zone) {
        var groups = new LinkedHashMap<Value, Group>();
        var all = none(new Value(null, null), sums);
        for (var row : rows) {
            all = plus(all, row);
            if (grouping != null) {
                var value = value(row, grouping, zone);
                groups.put(value, plus(groups.getOrDefault(value, none(value, sums)), row));
            }
        }
        var ordered = new ArrayList<>(groups.values());
        boolean inTime = grouping != null && grouping.step() != null;
        ordered.sort(
                inTime
                        ? Comparator.comparing(one -> Objects.toString(one.value().plain(), ""))
                        : LARGEST_FIRST);
        boolean more = ordered.size() > MOST;
        // In time the newest matter, else the largest.
        var shown =
                !more
                        ? ordered
                        : inTime
                                ? ordered.subList(ordered.size() - MOST, ordered.size())
                                : ordered.subList(0, MOST);
        return new Figures(all.count(), all.sums(), shown, more);
    }

    private static Group none(Value value, int sums) {
        return new Group(value, 0, java.util.Collections.nCopies(sums, BigDecimal.ZERO));
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
