package sandpiper.bench.control;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A stay as it comes in. */
record NewStay(
        @Nullable String vessel,
        @Nullable String berth,
        @Nullable LocalDate arrival,
        @Nullable LocalDate departure,
        @Nullable String remarks,
        @Nullable List<NewCharge> charges) {

    /** One charge. */
    record NewCharge(@Nullable String tariff, @Nullable BigDecimal quantity) {}
}
