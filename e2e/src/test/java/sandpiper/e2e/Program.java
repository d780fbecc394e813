package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Runs a program nobody here wrote. */
final class Program {
    /** The one that has the packages of the system; others on the path may not. */
    static final String PYTHON = "/usr/bin/python3";

    private Program() {}

    /** What it prints; it must end well, and in time. */
    static String run(Path in, List<String> command) throws Exception {
        var process =
                new ProcessBuilder(command)
                        .directory(in.toFile())
                        .redirectErrorStream(true)
                        .start();
        var out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(3, TimeUnit.MINUTES)).isTrue();
        assertThat(process.exitValue()).as(out).isZero();
        return out;
    }
}
