package sandpiper.model.definition;

import java.math.RoundingMode;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** How what is worked out is brought to the decimal places of its field. */
public enum Rounding {
    /** 1.605 becomes 1.61, as people do it by hand; the usual one. */
    HALF_UP("half-up", RoundingMode.HALF_UP),
    /** 1.605 becomes 1.60, 1.615 becomes 1.62: a half goes to the even digit. */
    HALF_EVEN("half-even", RoundingMode.HALF_EVEN),
    /** A half goes towards zero. */
    HALF_DOWN("half-down", RoundingMode.HALF_DOWN),
    /** Always away from zero. */
    UP("up", RoundingMode.UP),
    /** Always towards zero: what is too much is cut off. */
    DOWN("down", RoundingMode.DOWN);

    private final String written;
    private final RoundingMode mode;

    Rounding(String written, RoundingMode mode) {
        this.written = written;
        this.mode = mode;
    }

    /** As it stands in {@code package.yaml}. */
    public String written() {
        return written;
    }

    /** The same to the JDK. */
    public RoundingMode mode() {
        return mode;
    }

    /** All as they are written. */
    public static List<String> allWritten() {
        return Arrays.stream(values()).map(Rounding::written).toList();
    }

    /** The one that is written so, or nothing. */
    public static Optional<Rounding> of(String written) {
        return Arrays.stream(values()).filter(one -> one.written.equals(written)).findFirst();
    }
}
