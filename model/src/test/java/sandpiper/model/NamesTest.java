package sandpiper.model;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NamesTest {
    @ParameterizedTest
    @CsvSource({
        "nightlyRate, Nightly rate, Nightly rates, nightly-rate",
        "CraftInspection, Craft inspection, Craft inspections, craft-inspection",
        "Enquiry, Enquiry, Enquiries, enquiry",
        "Wash, Wash, Washes, wash",
        "Day, Day, Days, day"
    })
    void makesLabelsPluralsAndAddresses(String name, String label, String plural, String address) {
        assertThat(Names.label(name)).isEqualTo(label);
        assertThat(Names.plural(label)).isEqualTo(plural);
        assertThat(Names.address(name)).isEqualTo(address);
    }
}
