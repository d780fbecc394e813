package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.demo.Demo;

/** Clients generated from a contract do their work. */
@ExtendWith(Marina.class)
class GeneratedClientTest {
    /** What somebody writes who was handed contract, name and secret. */
    private static final String PROGRAM =
            """
            import { BerthsApi, Configuration, ResponseError, StaysApi } from './made'

            const [basePath, password] = process.argv.slice(2)
            const configuration = new Configuration({ basePath, username: 'booking-site', password })

            async function main() {
              const berths = await new BerthsApi(configuration).queryBerths({ limit: 2, count: true })
              console.log('berths', berths.items.length, berths.count)
              const stays = new StaysApi(configuration)
              const page = await stays.queryStays({ filter: 'state = "Alongside"', limit: 1 })
              const first = page.items[0]
              console.log('stay', first.state, first.arrival instanceof Date)
              const found = await stays.readStay({ key: first.number! })
              console.log('same', found.number === first.number)
              try {
                await stays.readStay({ key: 'ST-1900-000000' })
              } catch (wrong) {
                if (!(wrong instanceof ResponseError)) throw wrong
                const problem = await wrong.response.json()
                console.log('problem', problem.status, problem.detail)
              }
            }
            main()
            """;

    @TempDir Path folder;

    private void generate(String language, String... options) throws Exception {
        var contract = folder.resolve("berth-desk.json");
        Files.writeString(
                contract,
                Marina.get(Marina.CONSULTANT, "/manage/v1/contracts/berth-desk/v1/openapi.json")
                        .whole()
                        .body());
        var command = new ArrayList<String>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.add("-jar");
        command.add(Path.of("target/tools/openapi-generator.jar").toAbsolutePath().toString());
        command.addAll(List.of("generate", "-i", contract.toString(), "-g", language));
        command.addAll(List.of("-o", folder.resolve("made").toString()));
        command.addAll(List.of(options));
        Program.run(folder, command);
    }

    /** What every program takes. */
    private static List<String> berthDesk(String... program) {
        var command = new ArrayList<>(List.of(program));
        command.add(Marina.address() + "/api/berth-desk/v1");
        return command;
    }

    @Test
    void inTypeScriptCompilesStrictlyAndRuns() throws Exception {
        generate("typescript-fetch");
        Files.writeString(folder.resolve("main.ts"), PROGRAM);
        var packages = Marina.repository().resolve("console/node_modules");
        Program.run(
                folder,
                new ArrayList<>(
                        List.of(
                                "node",
                                packages.resolve("typescript/lib/tsc.js").toString(),
                                "--strict",
                                "--target",
                                "es2022",
                                "--module",
                                "commonjs",
                                "--lib",
                                "es2022,dom,dom.iterable",
                                "--typeRoots",
                                packages.resolve("@types").toString(),
                                "--types",
                                "node",
                                "--outDir",
                                "out",
                                "main.ts")));

        var command = berthDesk("node", "out/main.js");
        command.add(Demo.BOOKING_SECRET);

        assertThat(Program.run(folder, command).lines())
                .containsExactly(
                        "berths 2 90",
                        "stay Alongside true",
                        "same true",
                        "problem 404 There is no Stay \"ST-1900-000000\".");
    }

    @Test
    void inPythonReadsPagesWritesAndIsRefused() throws Exception {
        generate("python-pydantic-v1", "--additional-properties=packageName=booking");
        // Python finds packages beside the program.
        var program = Path.of("../docs/guide/clients/booking-site.py");
        Files.copy(program, folder.resolve("made/booking-site.py"));

        var command = berthDesk(Program.PYTHON, "made/booking-site.py");
        command.addAll(List.of("booking-site", Demo.BOOKING_SECRET));
        var said = Program.run(folder, command);

        assertThat(said.lines().toList())
                .satisfiesExactly(
                        line -> assertThat(line).matches("3 of \\d+ berths with power"),
                        line -> assertThat(line).matches("\\d\\d+ stays are over, each once: True"),
                        line -> assertThat(line).startsWith("asked for, 3 nights, 1 charge, "),
                        line -> assertThat(line).isEqualTo("412: changed meanwhile"),
                        line -> assertThat(line).isEqualTo("Cancelled, version 3"),
                        line ->
                                assertThat(line)
                                        .isEqualTo(
                                                "refused: There is no Stay \"ST-1999-000001\"."));
    }
}
