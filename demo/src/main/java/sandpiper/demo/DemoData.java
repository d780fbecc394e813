package sandpiper.demo;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * The marina's records. Made from a fixed seed and fixed dates, so that pictures and tests find the
 * same each time; the year is 2026.
 */
public final class DemoData {
    private static final int OWNERS = 40;
    private static final int VESSELS = 120;

    /** One vessel of so many has a picture. */
    private static final int PHOTOGRAPHED = 2;

    private static final int STAYS = 400;
    private static final int INVOICES = 150;
    private static final int INSPECTIONS = 200;
    private static final int BERTHS_PER_PIER = 15;
    private static final LocalDate YEAR = LocalDate.of(2026, 1, 1);

    private final Random random = new Random(20260501);
    private final Map<String, List<Map<String, Object>>> records = new LinkedHashMap<>();
    private final Map<Object, List<Span>> taken = new HashMap<>();
    private final Map<Object, Long> drawn = new HashMap<>();

    private DemoData() {}

    /** Records by object, in an order in which what is referred to comes first. */
    public static Map<String, List<Map<String, Object>>> records() {
        var data = new DemoData();
        data.owners();
        data.vessels();
        data.piersAndBerths();
        data.tariffs();
        data.stays();
        data.invoices();
        data.inspections();
        data.workRequests();
        return data.records;
    }

    private void add(String object, @Nullable Object... namesAndValues) {
        var record = new LinkedHashMap<String, Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            var value = namesAndValues[i + 1];
            if (value != null) {
                record.put(String.valueOf(namesAndValues[i]), value);
            }
        }
        records.computeIfAbsent(object, _ -> new ArrayList<>()).add(record);
    }

    private static Object value(Map<String, Object> record, String name) {
        return record.getOrDefault(name, "");
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private static String code(String pattern, int number) {
        return String.format(Locale.ROOT, pattern, number);
    }

    private BigDecimal metres(double low, double high) {
        return BigDecimal.valueOf(Math.round((low + random.nextDouble() * (high - low)) * 10), 1);
    }

    private static String owner(int number) {
        return code("OW-%04d", number + 1);
    }

    private static String vessel(int number) {
        return code("GH-%03d", number + 101);
    }

    private void owners() {
        for (int i = 0; i < OWNERS; i++) {
            boolean company = i % 8 == 7;
            var name =
                    company
                            ? DemoWords.COMPANIES.get(i / 8 % DemoWords.COMPANIES.size())
                            : DemoWords.FIRST_NAMES.get(i % DemoWords.FIRST_NAMES.size())
                                    + " "
                                    + DemoWords.LAST_NAMES.get(i * 3 % DemoWords.LAST_NAMES.size());
            var mailbox = name.toLowerCase(Locale.ROOT).replace(' ', '.');
            add(
                    "Owner",
                    "code",
                    owner(i),
                    "name",
                    name,
                    "kind",
                    company ? "company" : "person",
                    "email",
                    mailbox + "@example.org",
                    "phone",
                    code("+49 4321 55%03d", i + 100),
                    "country",
                    one(DemoWords.COUNTRIES),
                    "since",
                    YEAR.minusDays(random.nextInt(3000)).toString(),
                    "costCentre",
                    company ? code("4%03d", i) : null);
        }
    }

    private void piersAndBerths() {
        for (int p = 0; p < DemoWords.PIERS.size(); p++) {
            var pier = DemoWords.PIERS.get(p);
            add(
                    "Pier",
                    "code",
                    pier,
                    "name",
                    Map.of(
                            "en",
                            DemoWords.PIER_NAMES.get(p) + " pier",
                            "de",
                            DemoWords.PIER_NAMES_GERMAN.get(p) + "steg"),
                    "powerCapacity",
                    200L + 50L * p,
                    "open",
                    true);
        }
        for (int p = 0; p < DemoWords.PIERS.size(); p++) {
            for (int b = 1; b <= BERTHS_PER_PIER; b++) {
                long length = 8 + (b - 1) / 3 * 3L + p % 2;
                add(
                        "Berth",
                        "code",
                        DemoWords.PIERS.get(p) + code("-%02d", b),
                        "pier",
                        DemoWords.PIERS.get(p),
                        "maxLength",
                        length,
                        "maxDraught",
                        BigDecimal.valueOf(14 + p * 3L + b % 3, 1),
                        "powered",
                        b % 5 != 0,
                        "nightlyRate",
                        BigDecimal.valueOf(1200 + length * 110, 2));
            }
        }
    }

    private void tariffs() {
        for (var line : DemoWords.TARIFFS) {
            var parts = line.split("\\|", -1);
            add(
                    "Tariff",
                    "code",
                    parts[0],
                    "description",
                    parts[1],
                    "unitPrice",
                    new BigDecimal(parts[2]),
                    "vat",
                    new BigDecimal(parts[3]),
                    "oncePerStay",
                    Boolean.valueOf(parts[4]));
        }
    }

    private void vessels() {
        for (int i = 0; i < VESSELS; i++) {
            var length = metres(6.5, 19);
            var kind = one(DemoWords.KINDS);
            add(
                    "Vessel",
                    "registration",
                    vessel(i),
                    "name",
                    DemoWords.VESSEL_FIRST.get(i % DemoWords.VESSEL_FIRST.size())
                            + " "
                            + DemoWords.VESSEL_SECOND.get(
                                    i
                                            / DemoWords.VESSEL_FIRST.size()
                                            % DemoWords.VESSEL_SECOND.size()),
                    "kind",
                    kind,
                    "length",
                    length,
                    "beam",
                    metres(2.2, 5.2),
                    "draught",
                    metres(0.8, 2.6),
                    "shorePower",
                    one(List.of(0L, 10L, 16L, 16L, 32L)),
                    "insuredUntil",
                    YEAR.plusDays(random.nextInt(720)).toString(),
                    "transponder",
                    new UUID(
                                    random.nextLong(),
                                    (random.nextLong() & Long.MAX_VALUE) | Long.MIN_VALUE)
                            .toString(),
                    "photo",
                    i % PHOTOGRAPHED == 0 ? DemoPhotos.of(String.valueOf(kind)) : null,
                    "owner",
                    owner(i < OWNERS ? i : random.nextInt(OWNERS)));
        }
    }

    private void stays() {
        var tariffs = records.getOrDefault("Tariff", List.of());
        var vessels = records.getOrDefault("Vessel", List.of());
        for (int i = 0; i < STAYS; i++) {
            var arrival = YEAR.plusDays((long) i * 365 / STAYS + random.nextInt(4));
            int nights = 1 + random.nextInt(random.nextInt(6) == 0 ? 20 : 6);
            var departure = arrival.plusDays(nights);
            var vessel = one(vessels);
            var state = state(i);
            if (state.equals("Confirmed")) {
                insure(vessel, departure.plusDays(7));
            }
            var berth = berthFor(vessel, arrival, departure, state);
            var stay = new LinkedHashMap<String, Object>();
            stay.put("number", code("ST-2026-%06d", i + 1));
            stay.put("vessel", value(vessel, "registration"));
            stay.put("berth", value(berth, "code"));
            stay.put("state", state);
            stay.put("arrival", arrival.toString());
            stay.put("departure", departure.toString());
            boolean approved =
                    nights > 14 && !state.equals("Requested") && !state.equals("Cancelled");
            if (approved) {
                stay.put("approvedBy", "Wenke Quell");
            }
            stay.put("charges", charges(tariffs, value(vessel, "kind").equals("workboat")));
            records.computeIfAbsent("Stay", _ -> new ArrayList<>()).add(stay);
            if (state.equals("Alongside")) {
                draw(berth, vessel);
            }
        }
        piersHavePower();
    }

    /** No stay is confirmed without it. */
    private static void insure(Map<String, Object> vessel, LocalDate until) {
        if (LocalDate.parse(value(vessel, "insuredUntil").toString()).isBefore(until)) {
            vessel.put("insuredUntil", until.toString());
        }
    }

    /** Charges, each tariff once; unit price and VAT come from the tariff. */
    private List<Map<String, Object>> charges(List<Map<String, Object>> tariffs, boolean workboat) {
        var charges = new ArrayList<Map<String, Object>>();
        var used = new ArrayList<Object>();
        for (int c = random.nextInt(4); c > 0; c--) {
            var tariff = one(tariffs);
            var tariffCode = value(tariff, "code");
            if (used.contains(tariffCode) || (workboat && tariffCode.equals("ENV"))) {
                continue;
            }
            used.add(tariffCode);
            charges.add(Map.of("tariff", tariffCode, "quantity", (long) (1 + random.nextInt(8))));
        }
        return charges;
    }

    /** A berth long and deep enough that no other stay was promised at the time. */
    private Map<String, Object> berthFor(
            Map<String, Object> vessel, LocalDate arrival, LocalDate departure, String state) {
        var length = new BigDecimal(value(vessel, "length").toString());
        var draught = new BigDecimal(value(vessel, "draught").toString());
        var fitting =
                records.getOrDefault("Berth", List.of()).stream()
                        .filter(berth ->
                                new BigDecimal(value(berth, "maxLength").toString())
                                                        .compareTo(length)
                                                >= 0
                                        && new BigDecimal(value(berth, "maxDraught").toString())
                                                        .compareTo(draught)
                                                >= 0)
                        .toList();
        boolean holdsBerth = state.equals("Confirmed") || state.equals("Alongside");
        for (int i = 0; i < 200; i++) {
            var berth = one(fitting);
            var promised = taken.computeIfAbsent(value(berth, "code"), _ -> new ArrayList<>());
            boolean free =
                    !holdsBerth
                            || promised.stream()
                                    .noneMatch(span ->
                                            span.from().isBefore(departure)
                                                    && span.to().isAfter(arrival));
            if (free) {
                if (holdsBerth) {
                    promised.add(new Span(arrival, departure));
                }
                return berth;
            }
        }
        throw new IllegalStateException("The marina is full; make it larger or send fewer guests");
    }

    private record Span(LocalDate from, LocalDate to) {}

    private void draw(Map<String, Object> berth, Map<String, Object> vessel) {
        drawn.merge(value(berth, "pier"), (Long) value(vessel, "shorePower"), Long::sum);
    }

    /** Each pier has a little more power than is drawn: one large guest more and it is used up. */
    private void piersHavePower() {
        for (var pier : records.getOrDefault("Pier", List.of())) {
            long ofPier = drawn.getOrDefault(value(pier, "code"), 0L);
            pier.put("powerCapacity", Math.max(80, ofPier * 6 / 5 / 10 * 10 + 10));
        }
    }

    private String state(int number) {
        if (random.nextInt(15) == 0) {
            return "Cancelled";
        }
        if (number < STAYS * 3 / 4) {
            return "Departed";
        }
        if (number < STAYS * 3 / 4 + 30) {
            return "Alongside";
        }
        return random.nextInt(3) == 0 ? "Requested" : "Confirmed";
    }

    private void invoices() {
        var owners = new HashMap<Object, Object>();
        for (var vessel : records.getOrDefault("Vessel", List.of())) {
            owners.put(value(vessel, "registration"), value(vessel, "owner"));
        }
        var stays = records.getOrDefault("Stay", List.of());
        for (int i = 0; i < INVOICES; i++) {
            var stay = stays.get(i * 2);
            var issued = YEAR.plusDays(3L + i * 2L);
            add(
                    "Invoice",
                    "number",
                    code("IN-2026-%05d", i + 1),
                    "owner",
                    Objects.requireNonNull(owners.get(value(stay, "vessel"))),
                    "stay",
                    value(stay, "number"),
                    "issuedOn",
                    issued.toString(),
                    "paid",
                    random.nextInt(5) != 0);
        }
    }

    private void inspections() {
        for (int i = 0; i < INSPECTIONS; i++) {
            boolean passed = random.nextInt(6) != 0;
            add(
                    "CraftInspection",
                    "vessel",
                    vessel(random.nextInt(VESSELS)),
                    "inspectedOn",
                    YEAR.plusDays(i * 3L / 2).toString(),
                    "inspector",
                    one(List.of("Osk Torsen", "Ragna Wiek", "Ivo Brack")),
                    "minutes",
                    (long) (20 + random.nextInt(80)),
                    "passed",
                    passed,
                    "remarks",
                    passed ? "" : "Second look needed: gas locker and bilge pump.");
        }
    }

    private void workRequests() {
        for (int i = 0; i < 24; i++) {
            add(
                    "WorkRequest",
                    "number",
                    code("WR-%05d", i + 1),
                    "vessel",
                    vessel(random.nextInt(VESSELS)),
                    "title",
                    DemoWords.JOBS.get(i % DemoWords.JOBS.size()),
                    "priority",
                    one(List.of("low", "normal", "normal", "urgent")),
                    "dueOn",
                    YEAR.plusDays(90L + i * 9L).toString(),
                    "estimate",
                    "PT" + (2 + random.nextInt(14)) + "H",
                    "state",
                    i < 10 ? "Finished" : i < 16 ? "Planned" : "Reported");
        }
    }
}
