package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.client.AccessCalls;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;

/**
 * Contracts are true: whatever is sent by one and against it is answered with a status it names and
 * a body of the form it gives, and what does not fit it is never taken. On packages that are made
 * up at random, over REST against the OpenAPI document, over SOAP against the schema of the WSDL,
 * over OData against the metadata.
 */
class ContractTruthTest {
    /** For each package over REST; more are sent with {@code -Dsandpiper.truth=5000}. */
    private static final int REQUESTS = Integer.getInteger("sandpiper.truth", 400);

    @TempDir static Path folder;

    private static ServiceProcess service;
    private static ManageClient manage;

    @BeforeAll
    static void start() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        manage = service.client();
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    @Timeout(180)
    void whateverIsSentIsAnsweredAsTheContractSays(long seed) throws Exception {
        var random = new Random(seed);
        var name = "truth" + seed;
        manage.draft().push(TruthPackage.files(name, random));
        manage.draft().release(new DraftCalls.Wanted(name, true, true, true, false));
        var secret =
                manage.access()
                        .createClient(
                                new AccessCalls.NewClient(
                                        name, List.of(name + "/*/*"), false, 1_000_000, null))
                        .value()
                        .secret();
        var described = new DraftCalls.Service(name, 1);
        var contract = ManageClient.read(manage.draft().contract(described, "openapi.json"));
        var bodies = new RandomBodies(contract.path("components").path("schemas"), random);
        var credentials = name + ":" + secret;

        assertThat(new RestTruth(contract, random, credentials).run(REQUESTS)).isEmpty();

        var soap =
                new SoapTruth(
                        service.address() + "/soap/" + name + "/v1",
                        manage.draft().contract(described, "wsdl"),
                        credentials);
        assertThat(soap.run(contract, bodies, random, REQUESTS / 4)).isEmpty();
        assertThat(soap.taken()).as("messages that were taken").isGreaterThan(10);

        var odata =
                new ODataTruth(
                        service.address() + "/odata/" + name + "/v1",
                        manage.draft().contract(described, "odata?format=json"),
                        credentials);
        assertThat(odata.run(contract, bodies, random, REQUESTS / 4)).isEmpty();
        assertThat(odata.taken()).as("entities that were looked at").isGreaterThan(10);
    }
}
