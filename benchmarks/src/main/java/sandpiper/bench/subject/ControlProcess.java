package sandpiper.bench.subject;

import sandpiper.bench.control.ControlService;

/** Starts the service written by hand on a file or a database and says where it answers. */
final class ControlProcess {
    private ControlProcess() {}

    public static void main(String[] arguments) {
        System.out.println(ControlService.start(arguments[0]).address());
    }
}
