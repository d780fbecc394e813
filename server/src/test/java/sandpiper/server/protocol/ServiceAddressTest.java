package sandpiper.server.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ServiceAddressTest {
    private static ServiceAddress read(String path) {
        return ServiceAddress.read(Protocol.ODATA_AT, path);
    }

    @Test
    void aServiceIsNamedByItsNameAndVersionAndTheRestIsLeftAsItCame() {
        assertThat(read("/odata/berth-desk/v1")).isEqualTo(new ServiceAddress("berth-desk", 1, ""));
        assertThat(read("/odata/berth-desk/v12/"))
                .isEqualTo(new ServiceAddress("berth-desk", 12, "/"));
        assertThat(read("/odata/d2/v100/stays('a%2Fb')/$value"))
                .isEqualTo(new ServiceAddress("d2", 100, "/stays('a%2Fb')/$value"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/odata",
                "/odata/",
                "/odata/desk",
                "/odata/desk/",
                "/odata/desk/v",
                "/odata/desk/1",
                "/odata/desk/v1000",
                "/odata/desk/v1x",
                "/odata//v1",
                "/odata/Desk/v1",
                "/odata/../v1",
                "/odata/vocabularies/Org.OData.Core.V1.xml",
                "/api/desk/v1"
            })
    void whatNamesNoneIsLeftToOthers(String path) {
        assertThat(read(path)).isNull();
    }
}
