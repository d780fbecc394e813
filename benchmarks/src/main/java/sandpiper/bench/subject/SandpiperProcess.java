package sandpiper.bench.subject;

import sandpiper.demo.Demo;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

/** Starts Sandpiper on a file or a database and says where it answers. */
final class SandpiperProcess {
    private SandpiperProcess() {}

    public static void main(String[] arguments) {
        var running = SandpiperServer.start(new StartOptions(arguments[0], 0, Demo.PASSWORD, null));
        System.out.println(running.address());
    }
}
