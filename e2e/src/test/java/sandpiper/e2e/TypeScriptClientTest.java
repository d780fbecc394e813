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

/** A client in TypeScript, generated from the contract, compiles strictly and does its work. */
@ExtendWith(Marina.class)
class TypeScriptClientTest {
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

    @Test
    void isGeneratedCompiledAndRun() throws Exception {
        var contract = folder.resolve("berth-desk.json");
        Files.writeString(
                contract,
                Marina.get(Marina.CONSULTANT, "/manage/v1/contracts/berth-desk/v1/openapi.json")
                        .whole()
                        .body());
        Program.run(
                folder,
                List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-jar",
                        Path.of("target/tools/openapi-generator.jar").toAbsolutePath().toString(),
                        "generate",
                        "-i",
                        contract.toString(),
                        "-g",
                        "typescript-fetch",
                        "-o",
                        folder.resolve("made").toString()));
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

        var said =
                Program.run(
                        folder,
                        List.of(
                                "node",
                                "out/main.js",
                                Marina.address() + "/api/berth-desk/v1",
                                Demo.BOOKING_SECRET));

        assertThat(said.lines())
                .containsExactly(
                        "berths 2 90",
                        "stay Alongside true",
                        "same true",
                        "problem 404 There is no Stay \"ST-1900-000000\".");
    }
}
