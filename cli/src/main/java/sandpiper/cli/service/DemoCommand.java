package sandpiper.cli.service;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.FileOwner;
import sandpiper.client.ManageClient;
import sandpiper.demo.Bookkeeping;
import sandpiper.demo.Demo;
import sandpiper.demo.TideTable;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

@Command(
        name = "demo",
        mixinStandardHelpOptions = true,
        description = "Start the service with the marina: packages, records and sign-ins to try.",
        footer = {"", "Example:", "  sandpiper demo --port 8090"})
public final class DemoCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Option(
            names = "--data",
            paramLabel = "FILE|URL",
            defaultValue = ".sandpiper/demo.db",
            description = {
                "The file that holds everything, or the address of a database, as of serve",
                "(default: ${DEFAULT-VALUE})."
            })
    String data;

    @Option(
            names = "--port",
            defaultValue = "8080",
            description = "The port to answer on (default: ${DEFAULT-VALUE}).")
    int port;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        var bookkeeping = Bookkeeping.start(port == 0 ? 0 : port + 1);
        // It stands beside the service, where webhooks are not sent unless that is allowed.
        System.setProperty("sandpiper.webhooks.allow", bookkeeping.place());
        var tides = TideTable.start(port == 0 ? 0 : port + 2);
        System.setProperty("sandpiper.connections.allow", tides.place());
        // Everybody knows its passwords.
        System.setProperty("sandpiper.address", "127.0.0.1");
        System.setProperty("sandpiper.demo", "true");
        var running = SandpiperServer.start(new StartOptions(data, port, Demo.PASSWORD, null));
        var demo =
                new Demo(
                        new ManageClient(running.address(), Demo.ADMIN, Demo.PASSWORD),
                        step -> {
                            out.println("  loading " + step);
                            out.flush();
                        });
        if (!demo.isThere()) {
            out.println("Making the marina ...");
            out.flush();
            demo.load();
        }
        demo.connect(bookkeeping);
        demo.connect(tides);
        rememberConnection(running.address());
        explain(running.address(), bookkeeping.place(), tides.place(), out);
        return ServeCommand.KEEPS_RUNNING;
    }

    private static void rememberConnection(String address) throws IOException {
        Files.createDirectories(Connection.FILE.getParent());
        FileOwner.keep(Connection.FILE);
        Files.writeString(
                Connection.FILE,
                "# Written by sandpiper demo, so that commands in this folder find it.%nserver=%s%nuser=consultant%npassword=%s%n"
                        .formatted(address, Demo.PASSWORD));
    }

    private static void explain(String address, String bookkeeping, String tides, PrintWriter out) {
        out.printf(
                """

                Gullhaven Marina is open at %1$s

                  Console    consultant / %2$s   (designs and releases)
                             dock-master / %2$s  (runs piers, berths and stays)
                             clerk / %2$s        (enters records)
                             auditor / %2$s      (sees what was charged)
                  Service    booking-site / %3$s
                  Webhooks   the bookkeeping at http://%4$s/ledger hears of stays and invoices
                  Connection the tide table at http://%5$s gives gauges and exchange rates;
                             curl -X PUT http://%5$s/mode/down and it is down (slow, wrong, well)

                Try:
                  curl -u booking-site:%3$s '%1$s/api/berth-desk/v1/stays?filter=state%%20%%3D%%20%%22Alongside%%22&limit=3'
                  curl -u booking-site:%3$s '%1$s/api/berth-desk/v1/stays/ST-2026-000042'
                  curl -u booking-site:%3$s '%1$s/api/berth-desk/v1/openapi.json'

                Stop with Ctrl-C. The data stays; the next start takes seconds.
                """,
                address, Demo.PASSWORD, Demo.BOOKING_SECRET, bookkeeping, tides);
        out.flush();
    }
}
