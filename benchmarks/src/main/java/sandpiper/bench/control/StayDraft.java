package sandpiper.bench.control;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.bench.control.References.Berth;
import sandpiper.bench.control.References.Tariff;
import sandpiper.bench.control.References.Vessel;

/** A new stay with what follows from it: the rules, totals and checks of the marina, by hand. */
final class StayDraft {
    private static final int LONG = 14;

    final Vessel vessel;
    final Berth berth;
    final LocalDate arrival;
    final LocalDate departure;
    final @Nullable String remarks;
    final long nights;
    final boolean approvalRequired;
    final List<Line> lines = new ArrayList<>();
    final BigDecimal net;
    final BigDecimal gross;
    final List<String> warnings = new ArrayList<>();

    /** A charge with what it comes to. */
    record Line(Tariff tariff, BigDecimal quantity, BigDecimal net, BigDecimal gross) {}

    StayDraft(NewStay asked, References references) {
        vessel = references.vessel(required(asked.vessel(), "vessel"));
        berth = references.berth(required(asked.berth(), "berth"));
        arrival = required(asked.arrival(), "arrival");
        departure = required(asked.departure(), "departure");
        remarks = asked.remarks();
        nights = ChronoUnit.DAYS.between(arrival, departure);
        approvalRequired = nights > LONG;
        if (asked.charges() != null) {
            asked.charges().forEach(charge -> add(charge, references));
        }
        var nightly = berth.nightlyRate().multiply(BigDecimal.valueOf(nights));
        net = sum(lines.stream().map(Line::net).toList()).add(nightly);
        gross = sum(lines.stream().map(Line::gross).toList()).add(nightly);
        check();
    }

    private static <T> T required(@Nullable T value, String name) {
        if (value == null) {
            throw new RefusedException(name + " is required.");
        }
        return value;
    }

    private static BigDecimal sum(List<BigDecimal> values) {
        return values.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    private void add(NewStay.NewCharge charge, References references) {
        var tariff = references.tariff(required(charge.tariff(), "tariff"));
        if (vessel.kind().equals("workboat") && tariff.code().equals("ENV")) {
            return;
        }
        var quantity = charge.quantity() == null ? BigDecimal.ONE : charge.quantity();
        var lineNet = cents(quantity.multiply(tariff.unitPrice()));
        lines.add(
                new Line(
                        tariff,
                        quantity,
                        lineNet,
                        cents(
                                lineNet.multiply(
                                        BigDecimal.ONE.add(tariff.vat().movePointLeft(2))))));
    }

    private static BigDecimal cents(BigDecimal value) {
        return value.setScale(2, RoundingMode.HALF_EVEN);
    }

    private void check() {
        if (!departure.isAfter(arrival)) {
            throw new RefusedException("Departure must be after arrival (%s).".formatted(arrival));
        }
        if (berth.maxLength() < vessel.length()
                || berth.maxDraught() < vessel.draught()
                || !berth.open()) {
            throw new RefusedException(
                    "Berth %s is not on offer for %s.".formatted(berth.code(), vessel.name()));
        }
        var once = new HashSet<String>();
        for (var line : lines) {
            if (line.quantity().signum() <= 0) {
                throw new RefusedException(
                        "The quantity of %s must be above 0, but is %s."
                                .formatted(line.tariff().code(), line.quantity()));
            }
            if (line.tariff().oncePerStay() && !once.add(line.tariff().code())) {
                throw new RefusedException(
                        "A tariff that is due once per stay stands among the charges twice.");
            }
        }
        if (nights > 3 && !berth.powered() && vessel.shorePower() != 0) {
            warnings.add(
                    "%s takes shore power, but berth %s has none for %d nights."
                            .formatted(vessel.name(), berth.code(), nights));
        }
    }
}
