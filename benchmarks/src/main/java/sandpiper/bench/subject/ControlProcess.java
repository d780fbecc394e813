package sandpiper.bench.subject;

import java.nio.file.Path;
import sandpiper.bench.control.ControlService;

/** Starts the service written by hand on a file and says where it answers. */
final class ControlProcess {
    private ControlProcess() {}

    public static void main(String[] arguments) {
        System.out.println(ControlService.start(Path.of(arguments[0])).address());
    }
}
