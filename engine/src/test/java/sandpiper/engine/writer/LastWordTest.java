package sandpiper.engine.writer;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** In a process of its own, since it ends. */
class LastWordTest {
    /** Runs out of memory on one thread, while another would keep the process. */
    static final class Victim {
        private Victim() {}

        public static void main(String[] arguments) throws Exception {
            LastWord.install();
            Thread.ofPlatform().start(() -> fail(arguments[0]));
            TimeUnit.SECONDS.sleep(Long.parseLong(arguments[1]));
        }
    }

    private static void fail(String what) {
        switch (what) {
            case "memory" -> throw new IllegalStateException(new OutOfMemoryError("all of it"));
            case "link" -> throw new NoClassDefFoundError("Gone");
            default -> throw new IllegalStateException("a fault like others");
        }
    }

    private record Ended(int code, String said) {}

    private static Ended run(String what, int seconds) throws Exception {
        var process =
                new ProcessBuilder(
                                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                                "-cp",
                                System.getProperty("java.class.path"),
                                Victim.class.getName(),
                                what,
                                String.valueOf(seconds))
                        .redirectErrorStream(true)
                        .start();
        var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        return new Ended(process.exitValue(), said);
    }

    @Test
    void anErrorOfTheMachineEndsTheProcessWithASentence() throws Exception {
        for (var what : new String[] {"memory", "link"}) {
            var ended = run(what, 60);
            assertThat(ended.code()).as(what).isEqualTo(LastWord.EXIT_CODE);
            assertThat(ended.said()).contains("Sandpiper ends:", "What was answered is stored");
        }
    }

    @Test
    void anyOtherFaultDoesNot() throws Exception {
        assertThat(run("other", 1).code()).isZero();
    }
}
