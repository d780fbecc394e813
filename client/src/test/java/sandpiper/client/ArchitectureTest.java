package sandpiper.client;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("client");

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check();
    }
}
