package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class AddressFilterTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "/api/desk/v1/jobs",
                "/api/desk/v1/jobs/N%2F1",
                "filter=name%20%3D%20%22M%C3%BCritz%22",
                "%E2%9B%B5",
                "name=M\u00fcritz",
                "a%00b"
            })
    void wholeEscapesAreText(String address) {
        assertThat(AddressFilter.isText(address)).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/anything;%zz",
                "%",
                "%4",
                "a%f",
                "filter=%FF",
                "%ED%A0%BD",
                "%C3%28",
                "%C0%AF"
            })
    void whatIsNoTextIsNot(String address) {
        assertThat(AddressFilter.isText(address)).isFalse();
    }
}
