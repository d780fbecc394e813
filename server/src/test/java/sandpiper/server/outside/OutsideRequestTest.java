package sandpiper.server.outside;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.model.connection.OutsideOperation;
import sandpiper.model.connection.OutsideOperation.Sent;
import sandpiper.model.connection.OutsideOperation.Where;

class OutsideRequestTest {
    private static final OutsideOperation EVERYWHERE =
            new OutsideOperation(
                    "POST",
                    "/places/{place}/depths",
                    List.of(
                            new Sent("place", Where.PATH),
                            new Sent("on day", Where.QUERY),
                            new Sent("X-Unit", Where.HEADER),
                            new Sent("metres", Where.BODY)));

    private static OutsideRequest request(@Nullable Object... values) {
        return OutsideRequest.of(EVERYWHERE, "https://signals.example/v2/", Arrays.asList(values));
    }

    @Test
    void sendsEachValueWhereItBelongs() {
        var request = request("Pier 3/b?", "2026-05-01", "m", new BigDecimal("3.10"));

        assertThat(request.address())
                .hasToString(
                        "https://signals.example/v2/places/Pier%203%2Fb%3F/depths?on%20day=2026-05-01");
        assertThat(request.headers()).containsEntry("X-Unit", "m");
        assertThat(request.body()).containsEntry("metres", new BigDecimal("3.10"));
    }

    @Test
    void leavesOutWhatIsNotGiven() {
        var request = request("x", null, null, null);

        assertThat(request.address().getQuery()).isNull();
        assertThat(request.headers()).isEmpty();
        assertThat(request.body()).isNull();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", ".", ".."})
    void doesNotLeadElsewhereByWhatStandsInThePath(String place) {
        assertThatThrownBy(() -> request(place, null, null, null))
                .hasMessageContaining("place must have a value");
    }

    @Test
    void putsNoSecondHeaderIntoOne() {
        assertThatThrownBy(() -> request("x", null, "m\r\nAuthorization: other", null))
                .hasMessageContaining("X-Unit has a character");
    }

    @Test
    void writesNumbersInFull() {
        assertThat(request(new BigDecimal("1E+3"), null, null, null).address().getPath())
                .isEqualTo("/v2/places/1000/depths");
    }
}
