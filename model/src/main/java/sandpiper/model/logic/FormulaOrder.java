package sandpiper.model.logic;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Puts formulas into an order in which each comes behind those it reads, or names the circles. */
final class FormulaOrder {
    private final Map<String, List<String>> reads = new LinkedHashMap<>();
    private final Map<String, Boolean> done = new HashMap<>();
    private final List<String> order = new ArrayList<>();
    private final Deque<String> path = new ArrayDeque<>();
    private final List<List<String>> circles = new ArrayList<>();
    private final Set<String> inCircles = new HashSet<>();

    /** Adds a formula by its written name with those it reads. */
    void add(String formula, List<String> itReads) {
        reads.put(formula, itReads);
    }

    /** The order; formulas in a circle come in any. */
    List<String> order() {
        for (var formula : reads.keySet()) {
            visit(formula);
        }
        return order;
    }

    private void visit(String formula) {
        var state = done.get(formula);
        if (state != null) {
            if (!state) {
                // Going backwards from here along the path leads round.
                var round = new ArrayList<>(List.of(formula));
                for (var step : path) {
                    round.addFirst(step);
                    if (step.equals(formula)) {
                        break;
                    }
                }
                if (round.stream().noneMatch(inCircles::contains)) {
                    circles.add(round);
                    inCircles.addAll(round);
                }
            }
            return;
        }
        done.put(formula, false);
        path.push(formula);
        for (var read : reads.getOrDefault(formula, List.of())) {
            if (reads.containsKey(read)) {
                visit(read);
            }
        }
        path.pop();
        done.put(formula, true);
        order.add(formula);
    }

    /**
     * The circles of formulas that need each other, each with its first again at the end; of those
     * that share a formula, one.
     */
    List<List<String>> circles() {
        return circles;
    }
}
