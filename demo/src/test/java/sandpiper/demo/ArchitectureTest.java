package sandpiper.demo;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("demo");

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("client");
    }
}
