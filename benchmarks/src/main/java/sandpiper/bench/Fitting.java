package sandpiper.bench;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import sandpiper.demo.DemoData;

/** A vessel with a berth that is long and deep enough for it, so that its stay can be created. */
public record Fitting(String vessel, String berth) {
    private static final List<Fitting> ALL = all();

    /** The n-th of them, in no order. */
    public static Fitting at(int number) {
        return ALL.get(number % ALL.size());
    }

    private static List<Fitting> all() {
        var data = DemoData.records();
        var found = new ArrayList<Fitting>();
        for (var vessel : Objects.requireNonNull(data.get("Vessel"))) {
            for (var berth : Objects.requireNonNull(data.get("Berth"))) {
                if (isAtLeast(berth, "maxLength", vessel, "length")
                        && isAtLeast(berth, "maxDraught", vessel, "draught")) {
                    found.add(
                            new Fitting(
                                    String.valueOf(vessel.get("registration")),
                                    String.valueOf(berth.get("code"))));
                }
            }
        }
        Collections.shuffle(found, new Random(1));
        return List.copyOf(found);
    }

    private static boolean isAtLeast(
            Map<String, @Nullable Object> one,
            String most,
            Map<String, @Nullable Object> other,
            String needed) {
        return number(one.get(most)).compareTo(number(other.get(needed))) >= 0;
    }

    private static BigDecimal number(@Nullable Object value) {
        return value == null ? BigDecimal.ZERO : new BigDecimal(String.valueOf(value));
    }
}
