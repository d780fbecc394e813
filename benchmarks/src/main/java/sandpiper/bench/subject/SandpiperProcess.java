package sandpiper.bench.subject;

import java.nio.file.Path;
import sandpiper.demo.Demo;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

/** Starts Sandpiper on a file and says where it answers. */
final class SandpiperProcess {
    private SandpiperProcess() {}

    public static void main(String[] arguments) {
        var running =
                SandpiperServer.start(new StartOptions(Path.of(arguments[0]), 0, Demo.PASSWORD));
        System.out.println(running.address());
    }
}
