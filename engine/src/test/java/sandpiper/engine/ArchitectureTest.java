package sandpiper.engine;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("engine");
    private static final String[] ABOVE = {
        "org.springframework..", "org.jooq..", "java.sql..", "tools.jackson..", "jakarta.servlet.."
    };

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("model", "logic");
    }

    @Test
    void staysWithWhatItIsFor() {
        RULES.neverUses("the engine knows neither protocols nor databases", ABOVE);
    }
}
