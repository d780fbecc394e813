package sandpiper.logic;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("logic");
    private static final String[] ABOVE = {
        "org.springframework..", "org.jooq..", "java.sql..", "tools.jackson..", "jakarta.servlet.."
    };

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check();
    }

    @Test
    void staysWithWhatItIsFor() {
        // Language, model and engine run in the service, the command line and tests alike.
        RULES.neverUses("the language stands alone", ABOVE);
    }
}
