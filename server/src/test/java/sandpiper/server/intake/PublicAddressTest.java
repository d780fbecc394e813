package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import sandpiper.server.settings.SomeSettings;

class PublicAddressTest {
    private static MockHttpServletRequest forged() {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays");
        request.setServerName("evil.example");
        request.addHeader("X-Forwarded-Host", "evil.example");
        return request;
    }

    private static PublicAddress of(String set) {
        return new PublicAddress(
                SomeSettings.with(Map.of("sandpiper.public-address", set)), Optional.empty());
    }

    @Test
    void linksFollowWhatIsSetWhateverARequestSays() {
        var address = of("https://marina.example");
        assertThat(address.of(forged())).isEqualTo("https://marina.example");
        assertThat(address.isSecure()).isTrue();
        assertThat(of("http://marina.example").isSecure()).isFalse();
    }

    @Test
    void withoutASettingTheyGoByTheAddressThatWasCalled() {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays");
        request.setServerName("127.0.0.1");
        request.setServerPort(8080);
        assertThat(of("").of(request)).isEqualTo("http://127.0.0.1:8080");
        assertThat(of("").isSecure()).isFalse();
    }
}
