package sandpiper.logic.syntax;

import java.util.List;
import java.util.Map;
import sandpiper.logic.Span;

/** A type as written behind {@code instance of} or a parameter, DMN 1.5 grammar rule 54. */
public sealed interface TypeName {
    Span span();

    /** {@code number}, {@code date and time}, or the name of an object. */
    record Simple(String name, Span span) implements TypeName {}

    /** {@code list<number>} or {@code range<date>}. */
    record Of(String name, TypeName inner, Span span) implements TypeName {}

    /** {@code context<a: number, b: string>}. */
    record OfContext(Map<String, TypeName> entries, Span span) implements TypeName {}

    /** {@code function<number, number> -> number}. */
    record OfFunction(List<TypeName> parameters, TypeName result, Span span) implements TypeName {
        public OfFunction {
            parameters = List.copyOf(parameters);
        }
    }
}
