package sandpiper.cli;

import org.junit.jupiter.api.Test;
import sandpiper.testing.HouseRules;

class ArchitectureTest {
    private static final HouseRules RULES = new HouseRules("cli");

    @Test
    void keepsTheRulesOfTheHouse() {
        RULES.check("demo", "client", "server", "model", "logic");
    }

    @Test
    void staysWithWhatItIsFor() {
        RULES.neverUses("a command asks a service", "org.jooq..", "java.sql..", "org.sqlite..");
    }
}
