package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** One stay, made over one protocol, is there in the others. */
@ExtendWith(Marina.class)
class ThreeProtocolsTest {
    private static final String SITE = "booking-site:berths-for-all";
    private static final String AUTHORITY = "port-authority:tide-tables-2026";

    @Test
    void aStayMadeOverRestIsReadOverODataAndFoundOverSoap() {
        var vessel =
                Marina.call(
                        Marina.CONSULTANT,
                        "POST",
                        "/manage/v1/records/Vessel",
                        """
                        {"registration": "THREE-1", "name": "Threefold", "kind": "motor", "length": 7,
                         "beam": 2, "draught": 0.8, "insuredUntil": "2030-01-01", "owner": "OW-0040"}
                        """);
        assertThat(vessel.status()).as(vessel.whole().body()).isEqualTo(201);
        var made =
                Marina.call(
                        SITE,
                        "POST",
                        "/api/berth-desk/v1/stays",
                        """
                        {"vessel": "THREE-1", "berth": "%s", "arrival": "2029-03-05",
                         "departure": "2029-03-08", "charges": [{"tariff": "WATER", "quantity": 2}]}
                        """
                                .formatted(largestBerth()));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        var number = made.json().path("number").asString();
        for (var call : new String[] {"/confirm", "/check-in"}) {
            var taken = Marina.call(SITE, "POST", made.header("Location") + call, "");
            assertThat(taken.status()).as(taken.whole().body()).isEqualTo(200);
        }

        var read =
                Marina.get(
                                SITE,
                                "/odata/berth-desk/v1/stays('%s')?$expand=vessel,charges"
                                        .formatted(number))
                        .json();
        assertThat(read.path("state").asString()).isEqualTo("Alongside");
        assertThat(read.path("vessel").path("name").asString()).isEqualTo("Threefold");
        assertThat(read.path("charges").get(0).path("tariffKey").asString()).isEqualTo("WATER");

        var found =
                Marina.call(
                                AUTHORITY,
                                "POST",
                                "/soap/harbour-report/v1",
                                """
                                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/">
                                  <s:Body><FindStays xmlns="urn:sandpiper:harbour-report:v1"><criteria>
                                    <number><equals>%s</equals></number>
                                  </criteria></FindStays></s:Body></s:Envelope>
                                """
                                        .formatted(number),
                                "Content-Type",
                                "text/xml")
                        .whole()
                        .body();
        assertThat(found).contains(number, "Threefold", "2029-03-05", "Alongside");
    }

    private static String largestBerth() {
        return Marina.get(
                        SITE,
                        "/odata/berth-desk/v1/berths?$filter=maxDraught%20ge%202.5%20and%20pierKey%20ne%20%27E%27&$orderby=maxLength%20desc&$top=1")
                .json()
                .path("value")
                .get(0)
                .path("code")
                .asString();
    }
}
