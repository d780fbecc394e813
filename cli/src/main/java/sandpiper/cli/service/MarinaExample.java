package sandpiper.cli.service;

import java.util.Map;
import sandpiper.demo.DemoPackages;
import sandpiper.server.ExamplePackages;

/** The marina of the demo, for whoever wants to look around in an instance of their own. */
public final class MarinaExample implements ExamplePackages {
    @Override
    public String label() {
        return "The marina";
    }

    @Override
    public String describe() {
        return "Two packages of a made-up marina: owners, vessels, berths, stays and invoices, with"
                + " services and requirements. Without records.";
    }

    @Override
    public Map<String, String> files() {
        return DemoPackages.files();
    }
}
