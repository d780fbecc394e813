package sandpiper.bench.logic;

import java.math.BigDecimal;

/**
 * A stay as a Java programmer would write it down, for the logic by hand and the other languages.
 */
public record Stay(
        long nights, BigDecimal rate, BigDecimal extras, String state, boolean approvalRequired) {
    /** For languages that look for getters. */
    public long getNights() {
        return nights;
    }

    public BigDecimal getRate() {
        return rate;
    }

    public BigDecimal getExtras() {
        return extras;
    }

    public String getState() {
        return state;
    }

    public boolean isApprovalRequired() {
        return approvalRequired;
    }
}
