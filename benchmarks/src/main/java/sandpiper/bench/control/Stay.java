package sandpiper.bench.control;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A stay as it goes out. */
@JsonInclude(JsonInclude.Include.NON_NULL)
record Stay(
        String number,
        long version,
        String vessel,
        String vesselName,
        @Nullable String ownerName,
        String berth,
        String pier,
        String state,
        LocalDate arrival,
        LocalDate departure,
        long nights,
        BigDecimal nightlyRate,
        boolean approvalRequired,
        @Nullable String remarks,
        BigDecimal netTotal,
        BigDecimal vatTotal,
        BigDecimal grossTotal,
        @Nullable List<Charge> charges) {

    /** One charge. */
    record Charge(
            String tariff,
            BigDecimal quantity,
            BigDecimal unitPrice,
            BigDecimal vat,
            BigDecimal net,
            BigDecimal gross) {}

    /** A stay in a list. */
    record Line(
            String number,
            String state,
            LocalDate arrival,
            LocalDate departure,
            String vesselName,
            String berth) {}
}
