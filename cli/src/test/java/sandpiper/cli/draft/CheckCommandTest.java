package sandpiper.cli.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.cli.Main;

class CheckCommandTest {
    @TempDir Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int run(String... arguments) {
        return Main.commandLine()
                .setOut(new PrintWriter(out))
                .setErr(new PrintWriter(err))
                .execute(arguments);
    }

    @Test
    void theDemoIsInOrder() {
        assertThat(run("check", "../demo/packages")).isZero();
        assertThat(out.toString()).contains("34 files are in order");
    }

    @Test
    void aMistakeIsShownInItsLineWithAMarkAndASuggestion() throws IOException {
        Files.writeString(
                folder.resolve("package.yaml"),
                "package: %s\nversion: 1\n".formatted(folder.getFileName()));
        Files.createDirectories(folder.resolve("objects"));
        Files.writeString(
                folder.resolve("objects/pier.yaml"),
                "object: Pier\nfields:\n  open: { type: bolean }\n");

        assertThat(run("check", folder.toString())).isEqualTo(1);
        assertThat(out.toString())
                .contains("objects/pier.yaml:3:17: error SP3003")
                .contains("  |   open: { type: bolean }\n  |                 ^^^^^^\n")
                .contains("Did you mean boolean?");
    }

    @Test
    void brokenUtf8IsToldByFile() throws IOException {
        Files.writeString(folder.resolve("package.yaml"), "package: x\nversion: 1\n");
        Files.write(folder.resolve("broken.yaml"), new byte[] {'a', (byte) 0xff});

        assertThat(run("check", folder.toString())).isEqualTo(1);
        assertThat(err.toString()).contains("broken.yaml is not text in UTF-8");
    }

    @Test
    void wrongUsageHasACodeOfItsOwn() {
        assertThat(run("check")).isEqualTo(2);
        assertThat(run("chek", "x")).isEqualTo(2);
        assertThat(err.toString()).contains("Did you mean").contains("check");
    }

    @Test
    void everyCommandShowsAnExample() {
        for (var command : Main.commandLine().getSubcommands().values()) {
            if (!command.getCommandName().equals("records")
                    && !command.getCommandName().startsWith("generate")) {
                assertThat(command.getUsageMessage())
                        .as(command.getCommandName())
                        .contains("sandpiper " + command.getCommandName());
            }
        }
    }
}
