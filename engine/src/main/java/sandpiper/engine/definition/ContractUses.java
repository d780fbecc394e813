package sandpiper.engine.definition;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.function.BiPredicate;
import java.util.function.Function;
import java.util.function.Predicate;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.model.change.ContractBreak;
import sandpiper.model.change.ContractBreaks;
import sandpiper.model.change.ContractGrowth;
import sandpiper.model.release.Release;

/** What a release does to published contracts, with who has used of late what it is about. */
record ContractUses(TrafficStorage traffic, Clock clock) {
    /** How far back calls of a service count as of late. */
    private static final int OF_LATE_DAYS = 30;

    /** What would break, a sentence each. */
    List<String> breaks(Session session, Release before, Release after) {
        return withUses(
                session,
                ContractBreaks.between(before, after),
                ContractBreak::sentence,
                ContractUses::isOf);
    }

    /** What grows, a sentence each. */
    List<String> growths(Session session, Release before, Release after) {
        return withUses(
                session,
                ContractGrowth.between(before, after),
                ContractGrowth::sentence,
                ContractUses::isOf);
    }

    /** Sentences with the calls of late that each is about. */
    private <T> List<String> withUses(
            Session session,
            List<T> found,
            Function<T, String> sentence,
            BiPredicate<T, Called> meant) {
        if (found.isEmpty()) {
            return List.of();
        }
        var today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
        var uses = traffic.since(session, today.minusDays(OF_LATE_DAYS));
        return found.stream()
                .map(one ->
                        "%s %s"
                                .formatted(
                                        sentence.apply(one),
                                        usedBy(called -> meant.test(one, called), uses)))
                .toList();
    }

    private static boolean isOf(ContractGrowth growth, Called called) {
        return called.service().equals(growth.service())
                && called.version() == growth.version()
                && called.resource().equals(growth.resource());
    }

    private static boolean isOf(ContractBreak broken, Called called) {
        return called.service().equals(broken.service())
                && called.version() == broken.version()
                && isMeant(broken.resource(), called.resource())
                && isMeant(broken.operation(), called.operation());
    }

    private static String usedBy(Predicate<Called> meant, List<Use> uses) {
        var callers = new TreeMap<String, Long>();
        for (var use : uses) {
            if (meant.test(use.called())) {
                callers.merge(use.called().caller(), use.calls(), Long::sum);
            }
        }
        if (callers.isEmpty()) {
            return "Nobody has called it in the last %d days.".formatted(OF_LATE_DAYS);
        }
        var words = new ArrayList<String>();
        callers.forEach((caller, calls) ->
                words.add("%s (%,d %s)".formatted(caller, calls, calls == 1 ? "time" : "times")));
        return "In the last %d days it was called by %s."
                .formatted(OF_LATE_DAYS, String.join(", ", words));
    }

    private static boolean isMeant(String broken, String called) {
        return broken.isEmpty() || broken.equals(called);
    }
}
