package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.function.Supplier;
import javax.crypto.SecretKey;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Keys;

/** Places in a list that callers hand back. */
class CursorsTest {
    private static Cursors cursors(String secret) {
        Keys keys = mock();
        Supplier<SecretKey> key =
                () -> new SecretKeySpec(Arrays.copyOf(secret.getBytes(), 32), "HmacSHA256");
        var made = key.get();
        when(keys.of(anyString())).thenReturn(() -> made);
        return new Cursors(keys);
    }

    @Test
    void aPlaceComesBackAsItWas() {
        var place = new ArrayList<@Nullable Object>(Arrays.asList("N-07", 12L, null, true));
        var cursors = cursors("one");

        assertThat(cursors.read("q", cursors.write("q", place))).isEqualTo(place);
        assertThat(cursors.read("q", null)).isNull();
        assertThat(cursors.read("q", "")).isNull();
    }

    @Test
    void aPlaceIsGoodForItsQueryAndItsInstance() {
        var cursor = cursors("one").write("filter=a", List.of(1L));

        for (var wrong :
                List.of(
                        cursor.substring(1),
                        cursor + "A",
                        "!!!",
                        Base64.getUrlEncoder().encodeToString(new byte[40]))) {
            assertThatThrownBy(() -> cursors("one").read("filter=a", wrong))
                    .isInstanceOf(ProblemException.class)
                    .hasMessageContaining("after is not a cursor of this query");
        }
        assertThatThrownBy(() -> cursors("one").read("filter=b", cursor))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> cursors("two").read("filter=a", cursor))
                .isInstanceOf(ProblemException.class);
    }
}
