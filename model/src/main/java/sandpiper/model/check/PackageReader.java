package sandpiper.model.check;

import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.Currency;
import java.util.List;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.Rounding;
import sandpiper.model.source.Source;

/** Reads {@code package.yaml}. */
final class PackageReader {
    private PackageReader() {}

    static PackageType read(Source source, String folder) {
        var root = source.root();
        var name = Source.text(root, "package").orElse(folder);
        if (!name.equals(folder)) {
            source.error(
                    DefinitionCode.MISPLACED_FILE,
                    "The package is called %s, but its folder %s; call them the same."
                            .formatted(Quoted.of(name), Quoted.of(folder)),
                    folder,
                    "package");
        }
        var languages = Source.texts(root, "languages");
        return new PackageType(
                folder,
                Source.text(root, "version").orElse("1"),
                Source.text(root, "label").orElseGet(() -> Names.label(folder)),
                Source.text(root, "describe").orElse(null),
                Source.texts(root, "depends"),
                Source.flag(root, "sealed"),
                languages.isEmpty() ? List.of("en") : languages,
                currency(source),
                zone(source),
                Source.text(root, "rounding").flatMap(Rounding::of).orElse(Rounding.HALF_UP),
                Source.text(root, "rates").orElse(null));
    }

    private static String currency(Source source) {
        var code = Source.text(source.root(), "currency").orElse("EUR");
        if (!isCurrency(code)) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "%s is not a currency of ISO 4217.".formatted(Quoted.of(code)),
                    null,
                    "currency");
        }
        return code;
    }

    static boolean isCurrency(String code) {
        return Currency.getAvailableCurrencies().stream()
                .anyMatch(currency -> currency.getCurrencyCode().equals(code));
    }

    private static ZoneId zone(Source source) {
        var zone = Source.text(source.root(), "zone").orElse("UTC");
        try {
            return ZoneId.of(zone);
        } catch (DateTimeException _) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "%s is not a time zone, as in Europe/Berlin.".formatted(Quoted.of(zone)),
                    Nearest.to(zone, ZoneId.getAvailableZoneIds()).orElse(null),
                    "zone");
            return ZoneId.of("UTC");
        }
    }
}
