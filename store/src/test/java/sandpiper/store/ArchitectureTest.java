package sandpiper.store;

import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

@Tag("sqlite")
class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("store");

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("engine", "model", "logic");
    }

    @Test
    void staysWithWhatItIsFor() {
        RULES.neverUses(
                "storage knows nothing of protocols", "org.springframework..", "jakarta.servlet..");
    }
}
