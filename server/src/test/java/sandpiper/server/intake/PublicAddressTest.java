package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;

class PublicAddressTest {
    private static MockHttpServletRequest forged() {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays");
        request.setServerName("evil.example");
        request.addHeader("X-Forwarded-Host", "evil.example");
        return request;
    }

    @Test
    void linksFollowWhatIsSetWhateverARequestSays() {
        var address = new PublicAddress("https://marina.example/ ");
        assertThat(address.of(forged())).isEqualTo("https://marina.example");
        assertThat(address.isSecure()).isTrue();
        assertThat(new PublicAddress("http://marina.example").isSecure()).isFalse();
    }

    @Test
    void withoutASettingTheyGoByTheAddressThatWasCalled() {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays");
        request.setServerName("127.0.0.1");
        request.setServerPort(8080);
        assertThat(new PublicAddress("").of(request)).isEqualTo("http://127.0.0.1:8080");
        assertThat(new PublicAddress("").isSecure()).isFalse();
    }

    @Test
    void whatIsNoAddressIsRefusedAtTheStart() {
        assertThatThrownBy(() -> new PublicAddress("marina.example"))
                .hasMessageContaining("sandpiper.public-address must begin with https://");
        assertThatThrownBy(() -> new PublicAddress("ftp://marina.example"))
                .hasMessageContaining("must begin with https://");
    }
}
