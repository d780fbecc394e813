package sandpiper.logic.filter;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.type.RecordType;

class FiltersTest {
    private static final Clock MAY =
            Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);
    private static final Clock JUNE =
            Clock.fixed(Instant.parse("2026-06-01T10:00:00Z"), ZoneOffset.UTC);

    private final Filters filters = new Filters();
    private final AtomicInteger asked = new AtomicInteger();

    private RecordType stay() {
        asked.incrementAndGet();
        return MarinaTypes.STAY;
    }

    private String check(String place, String text, Clock clock) {
        return filters.check(place, text, this::stay, clock).toString();
    }

    @Test
    void aFilterIsReadOnceForEachPlace() {
        check("desk", "nights > 3", MAY);
        check("desk", "nights > 3", MAY);
        check("yard", "nights > 3", MAY);

        assertThat(asked).hasValue(2);
    }

    @Test
    void todayIsTodayEachTimeItIsAsked() {
        var inMay = check("desk", "arrival = today()", MAY);
        var inJune = check("desk", "arrival = today()", JUNE);

        assertThat(inMay)
                .isEqualTo(
                        ConditionChecker.check("arrival = today()", MarinaTypes.STAY, MAY)
                                .toString());
        assertThat(inJune).isNotEqualTo(inMay);
    }

    @Test
    void whatIsWrongIsToldEachTimeAndNotKept() {
        for (int i = 0; i < 3; i++) {
            assertThat(filters.check("desk", "nigths > 3", this::stay, MAY))
                    .isInstanceOf(Checked.Rejected.class);
        }
        assertThat(asked).hasValue(3);
    }
}
