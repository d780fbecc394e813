package sandpiper.store.generated;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.EdgeCasesMode;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/**
 * Whatever is defined and whatever is done: derived values are what they would be from scratch.
 * {@code -Dsandpiper.models=2000} tries as many models; about two thousand take an hour.
 */
class GeneratedModelsTest {
    @Provide
    Arbitrary<List<List<List<Integer>>>> models() {
        return gene(14).list().ofMinSize(2).ofMaxSize(5).list().ofMinSize(2).ofMaxSize(5);
    }

    @Provide
    Arbitrary<List<List<Integer>>> actions() {
        return gene(30).list().ofMinSize(8).ofMaxSize(30);
    }

    private static Arbitrary<List<Integer>> gene(int length) {
        return Arbitraries.integers()
                .between(0, 5039)
                .withDistribution(net.jqwik.api.RandomDistribution.uniform())
                .list()
                .ofMinSize(0)
                .ofMaxSize(length)
                .withSizeDistribution(net.jqwik.api.RandomDistribution.uniform());
    }

    @Property(edgeCases = EdgeCasesMode.NONE)
    void derivedValuesAreWhatTheyWouldBeFromScratch(
            @ForAll("models") List<List<List<Integer>>> models,
            @ForAll("actions") List<List<Integer>> actions)
            throws IOException {
        var folder = Files.createTempDirectory("sandpiper-generated");
        var model = ModelMaker.make(models);
        try (var play = new Play(folder, model)) {
            try {
                actions.forEach(one -> play.act(new Choices(one)));
                play.assertAllRight();
            } catch (AssertionError | RuntimeException e) {
                throw new AssertionError(
                        "%s%n%s%n%s".formatted(e.getMessage(), model.files(), play.told()), e);
            }
        } finally {
            delete(folder);
        }
    }

    private static void delete(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            for (var file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }
}
