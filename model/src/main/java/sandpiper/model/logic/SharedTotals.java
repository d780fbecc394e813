package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/**
 * The totals within a formula through which alone it reads the records of an object. When a record
 * adds to each of them what it added before, the formula comes to the same.
 */
final class SharedTotals {
    private final List<RunningTotal> totals = new ArrayList<>();
    private final Set<String> readOtherwise = new HashSet<>();

    SharedTotals(Release release, ObjectType object, @Nullable Part part, CheckedTerm checked) {
        var covered = new HashSet<Term>();
        Terms.walk(
                checked.term(),
                one -> {
                    if (one instanceof Term.Aggregate aggregate) {
                        TotalFinder.within(release, checked, aggregate)
                                .ifPresent(total -> {
                                    totals.add(total);
                                    covered.add(aggregate);
                                    total.others()
                                            .forEach(other -> readOtherwise.add(other.object()));
                                });
                    }
                });
        Routes.besides(release, object, part, checked.term(), covered)
                .readings()
                .forEach(reading -> readOtherwise.add(reading.object().name()));
    }

    /** Those over an object's records; empty when the formula reads them in another way too. */
    List<RunningTotal> of(ObjectType object) {
        return readOtherwise.contains(object.name())
                ? List.of()
                : totals.stream()
                        .filter(total -> total.items().name().equals(object.name()))
                        .toList();
    }
}
