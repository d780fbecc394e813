package sandpiper.server;

import java.util.Map;

/**
 * Packages to look around in, offered to whoever begins. Found by {@link java.util.ServiceLoader},
 * so that what ships with the service need not be part of it.
 */
public interface ExamplePackages {
    /** What people read. */
    String label();

    /** What it shows, in a sentence. */
    String describe();

    /** The definition files by path. */
    Map<String, String> files();
}
