package sandpiper.server.outside;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.outside.Reply.Entry;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideOperation;

class AnswerReadingTest {
    private static LookupType lookup(List<String> items, List<String> label) {
        return new LookupType(
                "signals",
                "flags",
                new OutsideOperation("GET", "/flags", List.of()),
                null,
                null,
                items,
                List.of("code"),
                label,
                Duration.ofMinutes(1),
                false);
    }

    private static Reply read(LookupType lookup, @Nullable Object answer) {
        return AnswerReading.reply("Signals", () -> AnswerReading.entries(lookup, answer));
    }

    @Test
    void entriesAreFoundWhereTheyAreSaidToBe() {
        var answer =
                Map.of(
                        "found",
                        Map.of(
                                "rows",
                                List.of(
                                        Map.of("code", "A", "says", Map.of("name", "Alfa")),
                                        Map.of("code", 7L))));

        assertThat(read(lookup(List.of("found", "rows"), List.of("says", "name")), answer))
                .isEqualTo(new Reply.Answer(List.of(new Entry("A", "Alfa"), new Entry("7", "7"))));
    }

    @Test
    void whatIsNotThereIsTold() {
        var lookup = lookup(List.of("rows"), List.of("name"));

        assertThat(read(lookup, Map.of("rows", "none"))).isEqualTo(failure("rows is not a list"));
        assertThat(read(lookup, List.of()))
                .isEqualTo(failure("it has no rows where that should be"));
        assertThat(read(lookup, null)).isEqualTo(failure("rows is not a list"));
        assertThat(read(lookup, Map.of("rows", List.of(Map.of("name", "Alfa")))))
                .isEqualTo(failure("code is not a text"));
        assertThat(read(lookup, Map.of("rows", List.of("A"))))
                .isEqualTo(failure("it has no code where that should be"));
    }

    private static Reply failure(String what) {
        return new Reply.Failure(
                "Signals answered something else than its contract says: %s.".formatted(what),
                false);
    }

    @Test
    void aLabelIsNotLongerThanPeopleRead() {
        var answer = List.of(Map.of("code", "A", "name", "x".repeat(900)));

        var reply = (Reply.Answer) read(lookup(List.of(), List.of("name")), answer);

        assertThat(((Entry) ((List<?>) reply.plain()).getFirst()).label()).hasSize(500);
    }
}
