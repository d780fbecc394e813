package sandpiper.server.rest;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.server.service.FilePlace;

class RestPlaceTest {
    @Test
    void anAddressNamesResourceRecordAndCall() {
        assertThat(RestPlace.read("/api/berth-desk/v1/stays"))
                .isEqualTo(new RestPlace("berth-desk", 1, "stays", false, null, null, null));
        assertThat(RestPlace.read("/api/berth-desk/v12/stays:batch"))
                .isEqualTo(new RestPlace("berth-desk", 12, "stays", true, null, null, null));
        assertThat(RestPlace.read("/api/desk/v1/stays/ST-1/check-in"))
                .isEqualTo(new RestPlace("desk", 1, "stays", false, "ST-1", "check-in", null));
    }

    @Test
    void aFileStandsBehindItsRecordOrItsLineItem() {
        assertThat(RestPlace.read("/api/desk/v1/stays/ST-1/lease").ofFile())
                .isEqualTo(FilePlace.of("lease"));
        assertThat(RestPlace.read("/api/desk/v1/stays/ST-1/charges/12/receipt").ofFile())
                .isEqualTo(new FilePlace("charges", 12, "receipt"));
        assertThat(RestPlace.read("/api/desk/v1/stays/ST-1").file()).isNull();
    }

    @Test
    void aKeyMayHoldAnyCharacter() {
        var place = RestPlace.read("/api/desk/v1/stays/a%2Fb%20%E2%9B%B5;c");

        assertThat(place).isNotNull();
        assertThat(place.ofRecord()).isEqualTo("a/b ⛵;c");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/manage/v1/records/Stay",
                "/api",
                "/api/desk/v1",
                "/api/desk/v1/",
                "/api/desk/v1/stays/",
                "/api/desk/v1/stays//check-in",
                "/api/desk/v1/stays/a/b/c",
                "/api/desk/v1/stays/a/b/c/d",
                "/api/desk/v1/stays/a/b/1/c/d",
                "/api/desk/1/stays",
                "/api/desk/v/stays",
                "/api/desk/v1000/stays",
                "/api/desk/vx/stays",
                "/api/Desk/v1/stays",
                "/api/desk/v1/openapi.json",
                "/api/../v1/stays"
            })
    void whatIsNoResourceIsLeftToOthers(String path) {
        assertThat(RestPlace.read(path)).isNull();
    }
}
