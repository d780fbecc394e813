import java.math.BigDecimal;
import java.net.URI;
import org.apache.olingo.client.api.ODataClient;
import org.apache.olingo.client.api.communication.ODataClientErrorException;
import org.apache.olingo.client.api.domain.ClientEntity;
import org.apache.olingo.client.api.domain.ClientEntitySet;
import org.apache.olingo.client.api.domain.ClientValue;
import org.apache.olingo.client.core.ODataClientFactory;
import org.apache.olingo.client.core.http.BasicAuthHttpClientFactory;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import org.apache.olingo.commons.api.format.ContentType;

/**
 * Finds a berth and asks for a stay over OData, with the client of Apache Olingo. Takes the address
 * of the service, and the id and secret of a client.
 */
public final class BerthDesk {
    private static final FullQualifiedName STAY = new FullQualifiedName("BerthDesk.v1", "Stay");
    private static final FullQualifiedName CHARGE =
            new FullQualifiedName("BerthDesk.v1", "StayCharge");

    private final ODataClient client = ODataClientFactory.getClient();
    private final String address;

    private BerthDesk(String address, String id, String secret) {
        this.address = address;
        client.getConfiguration().setDefaultPubFormat(ContentType.JSON_FULL_METADATA);
        client.getConfiguration().setHttpClientFactory(new BasicAuthHttpClientFactory(id, secret));
    }

    public static void main(String[] arguments) {
        new BerthDesk(arguments[0], arguments[1], arguments[2]).run();
    }

    private void run() {
        var metadata =
                client.getRetrieveRequestFactory().getMetadataRequest(address).execute().getBody();
        System.out.printf(
                "a stay has %d properties%n",
                metadata.getEntityType(STAY).getPropertyNames().size());

        var berths =
                read(
                        client.newURIBuilder(address)
                                .appendEntitySetSegment("berths")
                                .filter("maxDraught ge 2.5 and powered eq true")
                                .orderBy("maxLength desc")
                                .top(3)
                                .count(true)
                                .build());
        System.out.printf("%d of %d berths%n", berths.getEntities().size(), berths.getCount());
        var berth = berths.getEntities().getFirst();

        var stay = create(text(berth, "code"));
        System.out.printf("asked for, %s nights%n", text(stay, "nights"));
        var key = text(stay, "number");

        var whole =
                client.getRetrieveRequestFactory()
                        .getEntityRequest(
                                client.newURIBuilder(address)
                                        .appendEntitySetSegment("stays")
                                        .appendKeySegment(key)
                                        .expand("charges", "vessel")
                                        .build())
                        .execute()
                        .getBody();
        var charges =
                whole.getNavigationLink("charges").asInlineEntitySet().getEntitySet();
        System.out.printf("%d charges%n", charges.getEntities().size());

        try {
            create("NOWHERE");
        } catch (ODataClientErrorException e) {
            System.out.println("refused: " + e.getODataError().getMessage());
        }
    }

    private ClientEntitySet read(URI address) {
        return client.getRetrieveRequestFactory().getEntitySetRequest(address).execute().getBody();
    }

    private ClientEntity create(String berth) {
        var objects = client.getObjectFactory();
        var vessel =
                read(
                                client.newURIBuilder(address)
                                        .appendEntitySetSegment("stays")
                                        .filter("state eq 'Departed'")
                                        .expand("vessel")
                                        .top(1)
                                        .build())
                        .getEntities()
                        .getFirst()
                        .getNavigationLink("vessel")
                        .asInlineEntity()
                        .getEntity();
        var stay = objects.newEntity(STAY);
        set(stay, "vesselKey", text(vessel, "key"));
        set(stay, "berthKey", berth);
        set(stay, "arrival", "2027-07-02");
        set(stay, "departure", "2027-07-06");
        var charge = objects.newEntity(CHARGE);
        set(charge, "tariffKey", "WATER");
        charge.getProperties()
                .add(
                        objects.newPrimitiveProperty(
                                "quantity",
                                objects.newPrimitiveValueBuilder()
                                        .buildDecimal(new BigDecimal("3"))));
        var charges = objects.newEntitySet();
        charges.getEntities().add(charge);
        stay.addLink(objects.newDeepInsertEntitySet("charges", charges));
        return client.getCUDRequestFactory()
                .getEntityCreateRequest(
                        client.newURIBuilder(address).appendEntitySetSegment("stays").build(), stay)
                .execute()
                .getBody();
    }

    private void set(ClientEntity entity, String name, String value) {
        var objects = client.getObjectFactory();
        entity.getProperties()
                .add(
                        objects.newPrimitiveProperty(
                                name, objects.newPrimitiveValueBuilder().buildString(value)));
    }

    private static String text(ClientEntity entity, String name) {
        ClientValue value = entity.getProperty(name).getValue();
        return value.toString();
    }
}
