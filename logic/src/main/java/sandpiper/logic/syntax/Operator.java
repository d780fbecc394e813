package sandpiper.logic.syntax;

import java.util.Optional;

/** A comparison, DMN 1.5 §10.3.2.13. */
public enum Operator {
    EQUAL("="),
    NOT_EQUAL("!="),
    LESS("<"),
    LESS_OR_EQUAL("<="),
    GREATER(">"),
    GREATER_OR_EQUAL(">=");

    private final String symbol;

    Operator(String symbol) {
        this.symbol = symbol;
    }

    /** As it is written. */
    public String symbol() {
        return symbol;
    }

    /** The operator that says the same with the sides exchanged. */
    public Operator flipped() {
        return switch (this) {
            case EQUAL, NOT_EQUAL -> this;
            case LESS -> GREATER;
            case LESS_OR_EQUAL -> GREATER_OR_EQUAL;
            case GREATER -> LESS;
            case GREATER_OR_EQUAL -> LESS_OR_EQUAL;
        };
    }

    /** Whether it asks for an order, which not every type has. */
    public boolean ordersValues() {
        return this != EQUAL && this != NOT_EQUAL;
    }

    static Optional<Operator> of(Token token) {
        for (var operator : values()) {
            if (token.is(operator.symbol)) {
                return Optional.of(operator);
            }
        }
        return Optional.empty();
    }
}
