package sandpiper.model.type;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AskedLanguagesTest {
    private static final List<String> LANGUAGES = List.of("en", "de", "fr");

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    de                    | de
                    de-CH, en;q=0.8       | de
                    fr;q=0.3, de;q=0.7    | de
                    nl, fr;q=0.1          | fr
                    nl                    | en
                    *                     | en
                    DE                    | de
                    ;;;q=x                | en
                                          | en
                    """)
    void theOneThatFitsBestIsTaken(@Nullable String header, String language) {
        assertThat(LANGUAGES.get(AskedLanguages.of(header).place(LANGUAGES))).isEqualTo(language);
    }

    @Test
    void itHoldsForTheWorkDoneInIt() {
        assertThat(AskedLanguages.current()).isSameAs(AskedLanguages.MAIN);
        int place = AskedLanguages.of("de").in(() -> AskedLanguages.current().place(LANGUAGES));
        assertThat(place).isEqualTo(1);
        assertThat(AskedLanguages.current().place(LANGUAGES)).isZero();
    }
}
