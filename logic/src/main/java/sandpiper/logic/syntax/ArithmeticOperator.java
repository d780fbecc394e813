package sandpiper.logic.syntax;

/** DMN 1.5 §10.3.2.12. */
public enum ArithmeticOperator {
    PLUS("+"),
    MINUS("-"),
    TIMES("*"),
    DIVIDE("/"),
    POWER("**");

    private final String symbol;

    ArithmeticOperator(String symbol) {
        this.symbol = symbol;
    }

    /** As it is written. */
    public String symbol() {
        return symbol;
    }
}
