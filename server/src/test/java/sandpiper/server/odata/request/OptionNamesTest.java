package sandpiper.server.odata.request;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Options with and without their dollar sign, in any case; none is left aside. */
class OptionNamesTest {
    private static String read(String query) {
        return URLDecoder.decode(OptionNames.read(query), StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    $top=1                                  | $top=1
                    top=1&Filter=a eq 1                     | $top=1&$filter=a eq 1
                    %24OrderBy=a                            | $orderby=a
                    @p=1&filter=a eq @p                     | @p=1&$filter=a eq @p
                    count                                   | $count=
                    &top=1&                                 | $top=1
                    expand=lines                            | $expand=lines
                    expand=lines(select=a;Top=2)            | $expand=lines($select=a;$top=2)
                    $expand=a($expand=b(select=c),d)        | $expand=a($expand=b($select=c),d)
                    expand=a(filter=b eq ';top=1(skip=2')   | $expand=a($filter=b eq ';top=1(skip=2')
                    format=application/json;metadata=full   | $format=application/json;odata.metadata=full
                    """)
    void areMadeOne(String given, String read) {
        assertThat(read(given)).isEqualTo(read);
    }

    @ParameterizedTest
    @ValueSource(strings = {"$compute=a", "index=1", "$DeltaToken=x", "$expand=a(compute=b)"})
    void whatTheStandardHasBesidesIsNotOffered(String query) {
        assertThatThrownBy(() -> OptionNames.read(query)).hasMessageContaining("is not offered");
    }

    @ParameterizedTest
    @ValueSource(strings = {"limit=5", "$limit=5", "sap-client=1", "_=17", "p=1"})
    void whatIsNoOptionIsRefused(String query) {
        assertThatThrownBy(() -> OptionNames.read(query))
                .hasMessageStartingWith("There is no query option \"")
                .hasMessageContaining("Options are $apply, $count,");
    }

    @Test
    void nothingIsSaidTwice() {
        assertThatThrownBy(() -> OptionNames.read("$top=1&Top=2")).hasMessageContaining("twice");
    }
}
