package sandpiper.engine.command;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** One place, in each notation that somebody reads. */
class FaultPathTest {
    private final FaultPath tariff = FaultPath.of("charges").then(2).then("tariff");

    @Test
    void isWrittenForPeopleAndAsAPointer() {
        assertThat(tariff).hasToString("charges.2.tariff");
        assertThat(tariff.pointer()).isEqualTo("/charges/2/tariff");
        assertThat(tariff.joined("/")).isEqualTo("charges/2/tariff");
    }

    @Test
    void theWholeIsNowhereInParticular() {
        assertThat(FaultPath.WHOLE.isWhole()).isTrue();
        assertThat(FaultPath.WHOLE.pointer()).isEmpty();
        assertThat(FaultPath.WHOLE).hasToString("");
        assertThat(tariff.isWhole()).isFalse();
    }

    @Test
    void signsThatPointersUseAreEscaped() {
        assertThat(FaultPath.of("a/b", "c~d").pointer()).isEqualTo("/a~1b/c~0d");
    }

    @Test
    void aNumberAsANameIsNoPlace() {
        assertThat(FaultPath.of("7")).isNotEqualTo(FaultPath.WHOLE.then(7));
    }

    @Test
    void canBeSeenFromFurtherOut() {
        assertThat(tariff.inside(FaultPath.of("stay"))).hasToString("stay.charges.2.tariff");
        assertThat(tariff.inside(FaultPath.WHOLE)).isEqualTo(tariff);
    }
}
