package sandpiper.bench.logic;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import org.apache.commons.jexl3.JexlBuilder;
import org.apache.commons.jexl3.JexlExpression;
import org.apache.commons.jexl3.MapContext;
import org.apache.commons.jexl3.introspection.JexlPermissions;
import org.jspecify.annotations.Nullable;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.springframework.expression.Expression;
import org.springframework.expression.spel.standard.SpelExpressionParser;
import org.springframework.expression.spel.support.StandardEvaluationContext;
import sandpiper.bench.logic.SlotRecord.Slot;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;

/**
 * One rule's condition and one formula, each in four ways. Thirty-two records take turns, so that
 * nothing can be foreseen.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class LogicBench {
    private static final String CONDITION =
            "nights > 14 and not(approvalRequired) and (state = \"Requested\" or state ="
                    + " \"Confirmed\")";
    private static final String FORMULA = "nights * rate + extras * 1.19";
    private static final int RECORDS = 32;

    private final Stay[] stays = new Stay[RECORDS];
    private final SlotRecord[] slots = new SlotRecord[RECORDS];
    private final MapContext[] maps = new MapContext[RECORDS];
    private final StandardEvaluationContext[] contexts = new StandardEvaluationContext[RECORDS];
    private Evaluation run = new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE);
    private final Code condition;
    private final Code formula;
    private final Expression springCondition;
    private final Expression springFormula;
    private final JexlExpression jexlCondition;
    private final JexlExpression jexlFormula;
    private int at;

    public LogicBench() {
        for (int i = 0; i < RECORDS; i++) {
            long nights = 10 + i % 9;
            var state = List.of("Requested", "Confirmed", "Departed").get(i % 3);
            var stay =
                    new Stay(
                            nights,
                            BigDecimal.valueOf(2_450L + i, 2),
                            BigDecimal.valueOf(1_999 + i * 7L, 2),
                            state,
                            i % 4 == 0);
            stays[i] = stay;
            slots[i] = new SlotRecord(nights, 2_450L + i, 1_999L + i * 7L, state, i % 4 == 0);
            maps[i] = new MapContext();
            maps[i].set("nights", nights);
            maps[i].set("rate", stay.rate());
            maps[i].set("extras", stay.extras());
            maps[i].set("state", state);
            maps[i].set("approvalRequired", stay.approvalRequired());
            contexts[i] = new StandardEvaluationContext(stay);
        }
        var type =
                SlotRecord.Type.of(
                        new Slot("nights", 0, 0, LogicType.Simple.NUMBER),
                        new Slot("rate", 1, 2, LogicType.Simple.NUMBER),
                        new Slot("extras", 2, 2, LogicType.Simple.NUMBER),
                        new Slot("state", 3, -1, LogicType.Simple.TEXT),
                        new Slot("approvalRequired", 4, -1, LogicType.Simple.BOOLEAN));
        var setting = NameContext.of(World.EMPTY, type);
        condition = Compiler.compile(Checker.condition(CONDITION, setting));
        formula = Compiler.compile(Checker.check(FORMULA, setting));
        var spring = new SpelExpressionParser();
        springCondition =
                spring.parseExpression(
                        "nights > 14 and !approvalRequired and (state == 'Requested' or state =="
                                + " 'Confirmed')");
        springFormula =
                spring.parseExpression(
                        "rate * new java.math.BigDecimal(nights) + extras * new"
                                + " java.math.BigDecimal('1.19')");
        var jexl = new JexlBuilder().permissions(JexlPermissions.UNRESTRICTED).create();
        jexlCondition =
                jexl.createExpression(
                        "nights > 14 && !approvalRequired && (state == 'Requested' || state =="
                                + " 'Confirmed')");
        jexlFormula = jexl.createExpression("nights * rate + extras * 1.19b");
    }

    private int next() {
        at = (at + 1) % RECORDS;
        if (at == 0) {
            // A request with as many records; a run has a budget that must not end here.
            run = new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE);
        }
        return at;
    }

    private Object run(Code code) {
        var record = slots[next()];
        return code.run(record, run);
    }

    @Benchmark
    public Object conditionSandpiper() {
        return run(condition);
    }

    @Benchmark
    public Object conditionByHand() {
        var stay = stays[next()];
        return stay.nights() > 14
                && !stay.approvalRequired()
                && (stay.state().equals("Requested") || stay.state().equals("Confirmed"));
    }

    @Benchmark
    public @Nullable Object conditionSpel() {
        return springCondition.getValue(contexts[next()]);
    }

    @Benchmark
    public Object conditionJexl() {
        return jexlCondition.evaluate(maps[next()]);
    }

    @Benchmark
    public Object formulaSandpiper() {
        return run(formula);
    }

    private static final BigDecimal FACTOR = new BigDecimal("1.19");

    @Benchmark
    public Object formulaByHand() {
        var stay = stays[next()];
        return BigDecimal.valueOf(stay.nights())
                .multiply(stay.rate())
                .add(stay.extras().multiply(FACTOR));
    }

    @Benchmark
    public @Nullable Object formulaSpel() {
        return springFormula.getValue(contexts[next()]);
    }

    @Benchmark
    public Object formulaJexl() {
        return jexlFormula.evaluate(maps[next()]);
    }

    /** How long reading, checking and compiling a condition takes. */
    @Benchmark
    public Object compileSandpiper() {
        var type =
                SlotRecord.Type.of(
                        new Slot("nights", 0, 0, LogicType.Simple.NUMBER),
                        new Slot("state", 3, -1, LogicType.Simple.TEXT),
                        new Slot("approvalRequired", 4, -1, LogicType.Simple.BOOLEAN));
        return Compiler.compile(Checker.condition(CONDITION, NameContext.of(World.EMPTY, type)));
    }

    /** Runs all of it and gives the rows of the table. */
    public static String table() throws Exception {
        var results =
                new Runner(new OptionsBuilder().include(LogicBench.class.getSimpleName()).build())
                        .run();
        var nanos = new java.util.TreeMap<String, Double>();
        for (var result : results) {
            var name = result.getParams().getBenchmark();
            nanos.put(
                    name.substring(name.lastIndexOf('.') + 1),
                    result.getPrimaryResult().getScore());
        }
        return row("a rule's condition", "condition", nanos)
                + row("a formula over decimals", "formula", nanos)
                + "%nReading, checking and compiling a condition: %.1f µs.%n"
                        .formatted(nanos.getOrDefault("compileSandpiper", 0.0) / 1_000);
    }

    private static String row(String what, String prefix, java.util.Map<String, Double> nanos) {
        double own = nanos.getOrDefault(prefix + "Sandpiper", 0.0);
        return String.format(
                Locale.ROOT,
                "| %s | %.0f ns | %.2f | %.1f | %.1f |%n",
                what,
                own,
                own / nanos.getOrDefault(prefix + "ByHand", Double.NaN),
                nanos.getOrDefault(prefix + "Spel", Double.NaN) / own,
                nanos.getOrDefault(prefix + "Jexl", Double.NaN) / own);
    }

    /** Measures the logic alone; takes the file to write. */
    public static void main(String[] arguments) throws Exception {
        var table = table();
        Files.writeString(
                Path.of(arguments[0]),
                """
                # Logic, measured

                A condition and a formula on the same records, in one run of JMH: compiled by Sandpiper, written by
                hand in Java with `BigDecimal`, and in two general expression languages (SpEL, JEXL). Written by
                `./bench logic` on %s: %d processors, Java %s.

                | logic | Sandpiper | time, by hand = 1 | times as fast as SpEL | times as fast as JEXL |
                | --- | --- | --- | --- | --- |
                %s\
                """
                        .formatted(
                                LocalDate.now(ZoneOffset.UTC),
                                Runtime.getRuntime().availableProcessors(),
                                Runtime.version().feature(),
                                table));
        System.out.print(table);
    }
}
