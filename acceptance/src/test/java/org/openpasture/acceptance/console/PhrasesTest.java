package org.openpasture.acceptance.console;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.Gson;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.quantity.Quantity;

/** What the service says in fixed phrases the console says in its own language: a new phrase needs its translations. */
class PhrasesTest {
    private static final Path LANGUAGES = Path.of("../console/src/language");

    /** A letter or a number of a zone is the same in every language. */
    private static final int LABEL = 3;

    private static Stream<String> phrases() {
        return Stream.of(
                        Arrays.stream(Severity.values()).map(Severity::id),
                        Arrays.stream(Quantity.values()).map(Quantity::title),
                        Arrays.stream(Command.State.values()).map(Command.State::id),
                        Arrays.stream(Recipe.values())
                                .flatMap(recipe -> Stream.concat(
                                        Stream.of(recipe.title()),
                                        recipe.parameters().stream().map(Recipe.Parameter::title))),
                        LimitLibrary.shipped().stream().flatMap(PhrasesTest::of),
                        LimitLibrary.questions().stream()
                                .flatMap(question -> Stream.concat(
                                        Stream.of(question.text(), question.hint()),
                                        question.answers().stream()
                                                .flatMap(answer -> Stream.of(answer.text(), answer.because())))))
                .flatMap(phrase -> phrase)
                .filter(phrase -> !phrase.isEmpty());
    }

    private static Stream<String> of(LimitSet set) {
        return Stream.concat(
                Stream.of(set.title(), set.appliesTo()),
                set.zones().stream()
                        .flatMap(zone -> Stream.of(zone.label(), zone.meaning()))
                        .filter(phrase -> phrase.length() > LABEL || !phrase.equals(phrase.toUpperCase(Locale.ROOT))));
    }

    @ParameterizedTest
    @ValueSource(strings = {"de.json", "fr.json"})
    void arePartOfEachLanguage(String catalogue) throws IOException {
        Map<?, ?> texts = new Gson().fromJson(Files.readString(LANGUAGES.resolve(catalogue)), Map.class);
        assertThat(texts.keySet())
                .map(String::valueOf)
                .containsAll(new LinkedHashSet<>(phrases().toList()));
    }

    /** A phrase that the service no longer says would be translated for nobody. */
    @Test
    void areSaidByTheService() throws IOException {
        String said = sources();
        List<?> known = new Gson().fromJson(Files.readString(LANGUAGES.resolve("phrases.json")), List.class);
        Set<String> listed = new LinkedHashSet<>(phrases().toList());
        assertThat(known)
                .map(String::valueOf)
                .filteredOn(phrase -> !listed.contains(phrase)
                        && !said.contains('"' + phrase + '"')
                        && !said.contains('"' + phrase.replace(' ', '-') + '"')
                        && !said.contains(phrase.toUpperCase(Locale.ROOT)))
                .isEmpty();
    }

    private static String sources() throws IOException {
        StringBuilder all = new StringBuilder();
        for (String module : List.of("core", "inlets", "store", "engine", "service")) {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src/main"))) {
                for (Path file :
                        files.filter(path -> path.toString().endsWith(".java")).toList()) {
                    all.append(Files.readString(file));
                }
            }
        }
        return all.toString();
    }

    @Test
    void keepTheirNumbersInEachLanguage() throws IOException {
        Set<String> wrong = new LinkedHashSet<>();
        for (String catalogue : List.of("de.json", "fr.json")) {
            Map<?, ?> texts = new Gson().fromJson(Files.readString(LANGUAGES.resolve(catalogue)), Map.class);
            phrases()
                    .filter(phrase -> !numbers(phrase).equals(numbers(String.valueOf(texts.get(phrase)))))
                    .forEach(phrase -> wrong.add(catalogue + ": " + phrase));
        }
        assertThat(wrong).isEmpty();
    }

    /** The numbers of a text, in order of size; "rpm" is "1/min" in German. */
    private static List<String> numbers(String text) {
        return Pattern.compile("\\d+")
                .matcher(text.replace("1/min", "rpm").replace(',', '.'))
                .results()
                .map(MatchResult::group)
                .sorted()
                .toList();
    }
}
