package sandpiper.model;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("model");
    private static final String[] ABOVE = {
        "org.springframework..", "org.jooq..", "java.sql..", "jakarta.servlet.."
    };

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("logic");
    }

    @Test
    void staysWithWhatItIsFor() {
        RULES.neverUses("definitions are read wherever they are", ABOVE);
    }
}
