package sandpiper.server;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("server");

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("store", "engine", "model", "logic");
    }

    @Test
    void staysWithWhatItIsFor() {
        RULES.neverUses("SQL stays in the store", "org.jooq..", "java.sql..", "org.sqlite..");
    }
}
