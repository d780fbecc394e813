package sandpiper.bench;

import java.time.LocalDate;
import java.util.List;
import sandpiper.bench.load.Call;
import sandpiper.client.ManageClient;

/** The same work asked for in each protocol; the n-th request of each differs from the others. */
public interface Calls {
    /** What they are called in the table. */
    String protocol();

    /** Creates a stay with three charges. */
    Call create(int number);

    /** Reads a stay by its key, with the vessel, its owner and the charges. */
    Call read(int number);

    /** Finds fifty stays by state and pier. */
    Call query(int number);

    /** Every protocol of an instance. */
    static List<Calls> of(String server) {
        return List.of(
                new Rest(server + "/api/berth-desk/v1/stays"),
                new OData(server + "/odata/berth-desk/v1/stays"),
                new Soap(server + "/soap/berth-desk/v1"));
    }

    private static String vessel(int number) {
        return Fitting.at(number).vessel();
    }

    /** The pier the n-th query asks for. */
    static String pier(int number) {
        return String.valueOf("NSEWMH".charAt(number % 6));
    }

    private static String berth(int number) {
        return Fitting.at(number).berth();
    }

    private static LocalDate arrival(int number) {
        return LocalDate.of(2027, 1, 1).plusDays(number % 300);
    }

    /** The key the n-th read asks for. */
    static String key(int number) {
        return "ST-2026-%06d".formatted(1 + number % 400);
    }

    /** REST; also what the control speaks, whose keys begin elsewhere. */
    record Rest(String address) implements Calls {
        @Override
        public String protocol() {
            return "REST";
        }

        @Override
        public Call create(int number) {
            return Call.post(address, body(number));
        }

        /** The n-th new stay, which the control takes as well. */
        public static String body(int number) {
            return """
            {"vessel": "%s", "berth": "%s", "arrival": "%s", "departure": "%s", "charges": [
             {"tariff": "POWER", "quantity": 12.5}, {"tariff": "ENV", "quantity": 1}, {"tariff": "SHOWER", "quantity": 3}]}\
            """
                    .formatted(
                            vessel(number),
                            berth(number),
                            arrival(number),
                            arrival(number).plusDays(3));
        }

        @Override
        public Call read(int number) {
            return Call.get(address + "/" + key(number));
        }

        @Override
        public Call query(int number) {
            return Call.get(
                    address
                            + "?limit=50&filter="
                            + ManageClient.escape(
                                    "state = \"Requested\" and berth.pier = \"%s\""
                                            .formatted(pier(number))));
        }
    }

    /** OData 4.01. */
    record OData(String address) implements Calls {
        @Override
        public String protocol() {
            return "OData";
        }

        @Override
        public Call create(int number) {
            return Call.post(
                    address,
                    """
                    {"vesselKey": "%s", "berthKey": "%s", "arrival": "%s", "departure": "%s", "charges": [
                     {"tariffKey": "POWER", "quantity": 12.5}, {"tariffKey": "ENV", "quantity": 1}, {"tariffKey": "SHOWER", "quantity": 3}]}\
                    """
                            .formatted(
                                    vessel(number),
                                    berth(number),
                                    arrival(number),
                                    arrival(number).plusDays(3)));
        }

        @Override
        public Call read(int number) {
            return Call.get(
                    "%s('%s')?$expand=vessel($select=name;$expand=owner($select=name)),charges"
                            .formatted(address, key(number)));
        }

        @Override
        public Call query(int number) {
            return Call.get(
                    address
                            + "?$top=50&$filter="
                            + ManageClient.escape(
                                    "state eq 'Requested' and berth/pierKey eq '%s'"
                                            .formatted(pier(number))));
        }
    }

    /** SOAP 1.1. */
    record Soap(String address) implements Calls {
        @Override
        public String protocol() {
            return "SOAP";
        }

        private Call call(String body) {
            return Call.post(
                    address,
                    "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\""
                            + " xmlns=\"urn:sandpiper:berth-desk:v1\"><s:Body>"
                            + body
                            + "</s:Body></s:Envelope>",
                    "text/xml");
        }

        @Override
        public Call create(int number) {
            return call(
                    """
                    <CreateStay><stay><vessel>%s</vessel><berth>%s</berth><arrival>%s</arrival><departure>%s</departure>
                    <charges><item><tariff>POWER</tariff><quantity>12.5</quantity></item>
                    <item><tariff>ENV</tariff><quantity>1</quantity></item>
                    <item><tariff>SHOWER</tariff><quantity>3</quantity></item></charges></stay></CreateStay>\
                    """
                            .formatted(
                                    vessel(number),
                                    berth(number),
                                    arrival(number),
                                    arrival(number).plusDays(3)));
        }

        @Override
        public Call read(int number) {
            return call("<GetStay><key>%s</key></GetStay>".formatted(key(number)));
        }

        @Override
        public Call query(int number) {
            return call(
                    "<FindStays><criteria><state><equals>Requested</equals></state><berthPier><equals>%s</equals></berthPier></criteria><limit>50</limit></FindStays>"
                            .formatted(pier(number)));
        }
    }
}
