package sandpiper.server.traffic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import jakarta.servlet.FilterChain;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import sandpiper.engine.Engine;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.traffic.CallCounts;
import sandpiper.testing.SettableClock;

/** Calls counted by what was called and by whom, and stored from time to time. */
class TrafficTest {
    private static final Called READ = new Called("desk", 1, 0, "stays", "read", "REST", "tug");
    private static final Called FIND = new Called("desk", 1, 0, "stays", "query", "OData", "tug");

    private final Engine engine = mock();
    private final CallCounts counts = mock();
    private final SettableClock clock = new SettableClock(Instant.parse("2026-05-01T23:59:00Z"));
    private final SimpleMeterRegistry meters = new SimpleMeterRegistry();
    private Traffic traffic;

    @BeforeEach
    void open() {
        when(engine.clock()).thenReturn(clock);
        when(engine.calls()).thenReturn(counts);
        traffic = new Traffic(engine, meters);
    }

    @AfterEach
    void leave() {
        RequestContextHolder.resetRequestAttributes();
    }

    private static Duration millis(int millis) {
        return Duration.ofMillis(millis);
    }

    @SuppressWarnings("unchecked")
    private List<Use> stored() {
        traffic.store();
        ArgumentCaptor<List<Use>> uses = ArgumentCaptor.forClass(List.class);
        verify(counts).add(uses.capture(), any());
        return uses.getValue();
    }

    @SuppressWarnings("unchecked")
    private List<FailedCall> failed() {
        traffic.store();
        ArgumentCaptor<List<FailedCall>> failed = ArgumentCaptor.forClass(List.class);
        verify(counts).add(any(), failed.capture());
        return failed.getValue();
    }

    @Test
    void callsOfOneKindAddUp() {
        traffic.count(READ, 200, millis(10), "", "");
        traffic.count(READ, 404, millis(30), "There is none.", "");
        traffic.count(READ, 200, millis(20), "", "");
        traffic.count(FIND, 200, millis(5), "", "");

        assertThat(stored())
                .filteredOn(use -> use.called().equals(READ))
                .singleElement()
                .satisfies(use -> {
                    assertThat(use.calls()).isEqualTo(3);
                    assertThat(use.errors()).isEqualTo(1);
                    assertThat(use.micros()).isEqualTo(60_000);
                    assertThat(use.slowest()).isEqualTo(30_000);
                    assertThat(use.last()).isEqualTo(clock.instant());
                });
    }

    @Test
    void everyDayCountsForItself() {
        traffic.count(READ, 200, millis(1), "", "");
        clock.advance(Duration.ofMinutes(2));
        traffic.count(READ, 200, millis(1), "", "");

        assertThat(stored())
                .extracting(Use::day)
                .containsExactlyInAnyOrder(LocalDate.of(2026, 5, 1), LocalDate.of(2026, 5, 2));
        assertThat(LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC)).hasDayOfMonth(2);
    }

    @Test
    void whatFailedIsKeptWithWhatWasSaid() {
        traffic.count(READ, 422, millis(1), "x".repeat(600), "trace-1");
        traffic.count(READ, 200, millis(1), "", "");

        assertThat(failed())
                .singleElement()
                .satisfies(call -> {
                    assertThat(call.status()).isEqualTo(422);
                    assertThat(call.message()).hasSize(500);
                    assertThat(call.trace()).isEqualTo("trace-1");
                    assertThat(call.called()).isEqualTo(READ);
                });
    }

    @Test
    void whatWasStoredIsNotStoredAgain() {
        traffic.count(READ, 200, millis(1), "", "");
        stored();
        clearInvocations(counts);

        traffic.store();

        verify(counts, never()).add(any(), any());
    }

    @Test
    void aStorageThatIsBusyKeepsNobodyFromBeingAnswered() {
        traffic.count(READ, 200, millis(1), "", "");
        doThrow(new OverloadedException("busy")).when(counts).add(any(), any());

        traffic.store();
        traffic.count(READ, 200, millis(1), "", "");

        assertThat(meters.get("sandpiper.calls").timer().count()).isEqualTo(2);
    }

    @Test
    void kindsWithoutEndAreNotHeldButThoseThatAreKnownGoOn() {
        for (int i = 0; i < 10_100; i++) {
            traffic.count(
                    new Called("desk", 1, 0, "stays", "read", "REST", "c" + i),
                    200,
                    millis(1),
                    "",
                    "");
        }
        traffic.count(
                new Called("desk", 1, 0, "stays", "read", "REST", "c7"), 200, millis(1), "", "");

        var uses = stored();
        assertThat(uses).hasSize(10_000);
        assertThat(uses)
                .filteredOn(use -> use.called().caller().equals("c7"))
                .singleElement()
                .satisfies(use -> assertThat(use.calls()).isEqualTo(2));
    }

    private List<Use> through(FilterChain chain, int status) throws Exception {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays");
        var response = new MockHttpServletResponse();
        response.setStatus(status);
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
        new TrafficFilter(traffic).doFilter(request, response, chain);
        traffic.store();
        @SuppressWarnings("unchecked")
        ArgumentCaptor<List<Use>> uses = ArgumentCaptor.forClass(List.class);
        verify(counts, org.mockito.Mockito.atMost(1)).add(uses.capture(), any());
        return uses.getAllValues().isEmpty() ? List.of() : uses.getValue();
    }

    @Test
    void onlyWhatIsACallIsCounted() throws Exception {
        assertThat(through((_, _) -> {}, 200)).isEmpty();
    }

    @Test
    void theLastThatIsNotedIsWhatCounts() throws Exception {
        var uses =
                through(
                        (request, _) -> {
                            CallNotes.called("desk", 1, 0, "stays", "", "REST", "tug");
                            CallNotes.called("desk", 1, 0, "stays", "confirm", "REST", "tug");
                            assertThat(
                                            CallNotes.title(
                                                    (jakarta.servlet.http.HttpServletRequest)
                                                            request))
                                    .contains("desk v1 stays confirm");
                        },
                        200);

        assertThat(uses).extracting(use -> use.called().operation()).containsExactly("confirm");
        assertThat(uses.getFirst().errors()).isZero();
    }

    @Test
    void whatACallerIsToldCountsWhateverTheProtocolAnswersWith() throws Exception {
        var uses =
                through(
                        (_, _) -> {
                            CallNotes.called("desk", 1, 0, "stays", "read", "SOAP", "tug");
                            CallNotes.failed(404, "There is no stay.");
                        },
                        200);

        assertThat(uses.getFirst().errors()).isEqualTo(1);
    }

    @Test
    void outsideOfARequestNothingIsNoted() {
        CallNotes.called("desk", 1, 0, "stays", "read", "REST", "tug");

        assertThat(CallNotes.title(new MockHttpServletRequest())).isEmpty();
    }
}
