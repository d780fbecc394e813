package sandpiper.cli.activity;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.DraftCalls;
import sandpiper.client.RefusedException;

@Command(
        name = "contract",
        mixinStandardHelpOptions = true,
        description = "Print the contract of a service for the other side.",
        footer = {
            "",
            "Example:",
            "  sandpiper contract berth-desk --out berth-desk.openapi.json",
            "  sandpiper contract harbour-report --as wsdl --out harbour-report.wsdl",
            "  sandpiper contract berth-desk --as odata --out berth-desk.xml",
            "  sandpiper contract berth-desk --as asyncapi"
        })
public final class ContractCommand implements Callable<Integer> {
    /** The forms a contract can have. */
    enum Form {
        OPENAPI("openapi.json"),
        WSDL("wsdl"),
        ODATA("odata"),
        JSONSCHEMA("jsonschema"),
        ASYNCAPI("asyncapi.json");

        private final String address;

        Form(String address) {
            this.address = address;
        }
    }

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "SERVICE", description = "The service's name.")
    String service;

    @Option(
            names = "--version-number",
            paramLabel = "N",
            defaultValue = "1",
            description = "The version of the service (default: ${DEFAULT-VALUE}).")
    int version;

    @Option(
            names = "--as",
            defaultValue = "openapi",
            description = "The form: ${COMPLETION-CANDIDATES} (default: ${DEFAULT-VALUE}).")
    Form form;

    @Option(names = "--out", paramLabel = "FILE", description = "Write it here.")
    @Nullable Path file;

    @Override
    public Integer call() throws IOException {
        var draft = connection.open().draft();
        var known = draft.services();
        var wanted = new DraftCalls.Service(service, version);
        if (known.contains(wanted)) {
            print(draft.contract(wanted, form.address));
            return 0;
        }
        var names = known.stream().map(one -> one.name() + " v" + one.version()).toList();
        throw new RefusedException(
                0,
                "There is no service %s v%d; there %s."
                        .formatted(
                                service,
                                version,
                                names.isEmpty() ? "is none" : "are " + String.join(", ", names)),
                List.of());
    }

    private void print(String contract) throws IOException {
        var out = spec.commandLine().getOut();
        if (file == null) {
            out.println(contract);
        } else {
            Files.writeString(file, contract);
            out.println("wrote " + file);
        }
        out.flush();
    }
}
