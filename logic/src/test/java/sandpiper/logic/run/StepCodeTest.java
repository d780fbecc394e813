package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.OutsideService;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;

/** What steps do, in which order, and when they end. */
class StepCodeTest {
    private static final MarinaTypes.One VESSEL =
            MarinaTypes.One.of(MarinaTypes.VESSEL, "registration", "GH-1", "length", Decimal.of(9));

    private static final MarinaTypes.One STAY =
            MarinaTypes.One.of(
                    MarinaTypes.STAY,
                    "number",
                    "S-1",
                    "nights",
                    Decimal.of(4),
                    "open",
                    true,
                    "arrival",
                    LocalDate.of(2026, 5, 1),
                    "vessel",
                    VESSEL,
                    "charges",
                    MarinaTypes.list(
                            MarinaTypes.One.of(MarinaTypes.CHARGE, "code", "A"),
                            MarinaTypes.One.of(MarinaTypes.CHARGE, "code", "B")));

    private record Event(
            String name, Optional<RecordType> about, List<FunctionType.Parameter> values)
            implements EventShape {}

    private record Outside(
            String name, List<Parameter> parameters, @Nullable LogicType returns, boolean isKept)
            implements OutsideService.OutsideFunction {
        @Override
        public String written() {
            return "tides." + name;
        }
    }

    private record Service(String name, List<Outside> functions) implements OutsideService {}

    private static final World WORLD =
            new World() {
                @Override
                public Optional<RecordType> object(String name) {
                    return MarinaTypes.WORLD.object(name);
                }

                @Override
                public Collection<String> objectNames() {
                    return MarinaTypes.WORLD.objectNames();
                }

                @Override
                public Optional<EventShape> event(String name) {
                    return Optional.of(
                            new Event(
                                    name,
                                    Optional.of(MarinaTypes.STAY),
                                    List.of(
                                            new FunctionType.Parameter(
                                                    "nights", Simple.NUMBER, false),
                                            new FunctionType.Parameter(
                                                    "left", Simple.DATE, false))));
                }

                @Override
                public Optional<OutsideService> connection(String name) {
                    return name.equals("tides")
                            ? Optional.of(
                                    new Service(
                                            name,
                                            List.of(
                                                    new Outside(
                                                            "height",
                                                            List.of(
                                                                    new FunctionType.Parameter(
                                                                            "day",
                                                                            Simple.DATE,
                                                                            true),
                                                                    new FunctionType.Parameter(
                                                                            "hour",
                                                                            Simple.NUMBER,
                                                                            false)),
                                                            Simple.NUMBER,
                                                            true))))
                            : Optional.empty();
                }

                @Override
                public List<String> connectionNames() {
                    return List.of("tides");
                }
            };

    private static final FunctionType GIVES_A_NUMBER =
            new FunctionType() {
                @Override
                public String name() {
                    return "worth";
                }

                @Override
                public boolean isOnRecord() {
                    return true;
                }

                @Override
                public List<Parameter> parameters() {
                    return List.of();
                }

                @Override
                public LogicType returns() {
                    return Simple.NUMBER;
                }
            };

    private record Ran(Object result, RecordedActions actions, Evaluation run) {}

    private static Ran run(String text, MarinaTypes.One record, Object answer, int budget) {
        var setting = new NameContext(WORLD, MarinaTypes.STAY, null, false, null, Map.of());
        var checked =
                StepChecker.check(text, setting, text.contains("return") ? GIVES_A_NUMBER : null);
        assertThat(checked.problems()).filteredOn(one -> one.isError()).isEmpty();
        var run =
                new Evaluation(
                        Instant.parse("2026-05-01T10:00:00Z"),
                        ZoneOffset.UTC,
                        RecordSource.NONE,
                        budget);
        var code = StepCode.compile(checked);
        var frame = code.frame(run);
        frame.set(NameContext.THIS, record);
        var actions = new RecordedActions(answer);
        return new Ran(code.run(frame, actions), actions, run);
    }

    private static Ran run(String text) {
        return run(text, STAY, Decimal.of(7), Evaluation.USUAL_BUDGET);
    }

    private static List<String> lines(String text) {
        return run(text).actions().lines();
    }

    @Test
    void namesFieldsAndNotes() {
        assertThat(
                        lines(
                                """
                                let twice = nights * 2
                                set nights = twice
                                set vessel.length = twice + 1
                                set departure = null
                                note "{{x}} {nights}"
                                warn "Stay {number}" at nights
                                warn "All"
                                """))
                .containsExactly(
                        "twice is 8",
                        "set S-1.nights=8",
                        "set GH-1.length=9",
                        "set S-1.departure=-",
                        "note {x} 4",
                        "warn Stay S-1 [nights]",
                        "warn All []");
    }

    @Test
    void recordsAreMadeNamedChangedAndRetired() {
        assertThat(
                        lines(
                                """
                                create Stay { number: "S-2", nights: nights + 1 } as next
                                note next.number
                                create charges { code: "C", quantity: 2 } as line
                                note line.code
                                create charges { code: "D" }
                                save Stay by key { number: "S-3", open: false } as kept
                                note kept.number
                                update vessel { length: 12, insuredUntil: null }
                                retire vessel
                                transition layUp of vessel
                                """))
                .containsExactly(
                        "create Stay number=S-2,nights=5",
                        "note NEW",
                        "add S-1.charges code=C,quantity=2",
                        "note null",
                        "add S-1.charges code=D",
                        "save Stay number=S-3,open=false",
                        "note SAVED",
                        "set GH-1.length=12",
                        "set GH-1.insuredUntil=-",
                        "retire GH-1",
                        "transition GH-1 layUp");
    }

    /** Nothing happens to a record that is not there; what follows runs. */
    @Test
    void whatIsNotThereIsLeftAlone() {
        var alone = MarinaTypes.One.of(MarinaTypes.STAY, "number", "S-9");
        var text =
                """
                set vessel.length = 3
                update vessel { length: 3 }
                retire vessel
                transition layUp of vessel
                for each c in charges note c.code end
                note "end"
                """;
        assertThat(run(text, alone, Nothing.NULL, 1_000).actions().lines())
                .containsExactly("note end");
    }

    @Test
    void firstBranchThatHoldsIsTaken() {
        var text =
                """
                if nights > 10 then note "long"
                else if nights > 3 then note "middle"
                else if open then note "open"
                else note "short" end
                """;
        assertThat(lines(text)).containsExactly("3..14 false", "40..50 true", "note middle");
        var brief =
                MarinaTypes.One.of(
                        MarinaTypes.STAY, "number", "S-9", "nights", Decimal.of(1), "open", false);
        assertThat(run(text, brief, Nothing.NULL, 1_000).actions().lines())
                .containsExactly("3..14 false", "40..50 false", "78..82 false", "note short");
    }

    @Test
    void loopsRunOverACopyAndEndWithTheFunction() {
        assertThat(lines("for each c in charges set c.quantity = 1 end"))
                .containsExactly("c is A", "set A.quantity=1", "c is B", "set B.quantity=1");
        var ended = run("for each c in charges return 5 end\nreturn 6");
        assertThat(ended.actions().lines()).containsExactly("c is A");
        assertThat(ended.result()).isEqualTo(Decimal.of(5));
        assertThat(lines("for each i in 1..3 note i end"))
                .containsExactly("i is 1", "note 1", "i is 2", "note 2", "i is 3", "note 3");
    }

    @Test
    void rejectionStopsEverythingBehindIt() {
        assertThat(
                        lines(
                                """
                                for each c in charges
                                  reject "No {c.code}" at nights
                                  note "never"
                                end
                                note "never"
                                """))
                .containsExactly("c is A", "reject No A [nights]");
        assertThat(lines("require nights > 3 else reject \"Too short\"\nnote \"on\""))
                .containsExactly("0..42 true", "note on");
        assertThat(lines("require nights > 5 else reject \"Too short\" at nights\nnote \"on\""))
                .containsExactly("0..52 false", "reject Too short [nights]");
    }

    @Test
    void functionsGetWhatIsGivenInTheirOrder() {
        assertThat(
                        lines(
                                """
                                call vessel.fits(day: arrival, metres: 3) as yes
                                call vessel.fits(4)
                                call Vessel.register()
                                if yes = null then note "none" end
                                """))
                .startsWith(
                        "call Vessel.fits on GH-1 with [3, 2026-05-01]",
                        "call Vessel.fits on GH-1 with [4, -]",
                        "call Vessel.register on - with []");
        var alone = MarinaTypes.One.of(MarinaTypes.STAY, "number", "S-9");
        assertThat(run("call vessel.fits(4)\nnote \"never\"", alone, true, 1_000).actions().lines())
                .containsExactly(
                        "reject fits cannot be called: there is no Vessel to call it on. []");
    }

    @Test
    void outsideServicesAnswerUnderAName() {
        assertThat(
                        lines(
                                """
                                let high = call tides.height(arrival)
                                set nights = high
                                call tides.height(day: arrival, hour: 6)
                                """))
                .containsExactly(
                        "ask tides.height with [2026-05-01, -]",
                        "high is 7",
                        "set S-1.nights=7",
                        "ask tides.height with [2026-05-01, 6]");
    }

    @Test
    void eventsTellValuesAndWhatTheyAreAbout() {
        assertThat(lines("emit Left { nights: nights + 1, left: departure }"))
                .containsExactly("emit Left [nights=5, left=-] about S-1");
        assertThat(
                        lines(
                                """
                                create Stay { number: "S-2" } as next
                                emit Left { nights: 1 } about next
                                """))
                .contains("emit Left [nights=1] about NEW");
    }

    @Test
    void aFunctionGivesBackWhatItReturnsAndNothingOtherwise() {
        assertThat(run("return nights + 1").result()).isEqualTo(Decimal.of(5));
        assertThat(run("note \"x\"").result()).isEqualTo(Nothing.NULL);
        assertThat(run("if open then return 1 end\nreturn 2").result()).isEqualTo(Decimal.of(1));
    }

    @Test
    void eachStepIsToldBeforeAndPaidFor() {
        var ran = run("note 1\nif open then note 2 note 3 end\nnote 4");
        assertThat(ran.actions().steps()).isEqualTo(5);
        assertThat(run("note 1 note 2 note 3", STAY, Nothing.NULL, 3).actions().lines()).hasSize(3);
        assertThatThrownBy(() -> run("note 1 note 2 note 3", STAY, Nothing.NULL, 2))
                .isInstanceOf(BudgetException.class)
                .hasMessageContaining("more than 2 steps");
    }
}
