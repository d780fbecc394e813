package sandpiper.model.contract;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names as each protocol writes them. */
class ResourceNamesTest {
    @ParameterizedTest
    @CsvSource({
        "Stays, Stay",
        "Berths, Berth",
        "Companies, Company",
        "Glass, Glass",
        "Fish, Fish",
        "WorkRequests, WorkRequest"
    })
    void severalAreNamedAfterOne(String many, String one) {
        assertThat(ResourceNames.singular(many)).isEqualTo(one);
    }

    @Test
    void namesAreWrittenAsEachProtocolHasThem() {
        assertThat(ResourceNames.joined("check-in")).isEqualTo("CheckIn");
        assertThat(ResourceNames.capital("stay")).isEqualTo("Stay");
        assertThat(ResourceNames.small("Stay")).isEqualTo("stay");
    }
}
