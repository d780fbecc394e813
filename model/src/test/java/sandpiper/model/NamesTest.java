package sandpiper.model;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NamesTest {
    @ParameterizedTest
    @CsvSource({
        "nightlyRate, Nightly rate, Nightly rates",
        "CraftInspection, Craft inspection, Craft inspections",
        "Enquiry, Enquiry, Enquiries",
        "Wash, Wash, Washes",
        "Day, Day, Days"
    })
    void makesLabelsAndPlurals(String name, String label, String plural) {
        assertThat(Names.label(name)).isEqualTo(label);
        assertThat(Names.plural(label)).isEqualTo(plural);
    }
}
