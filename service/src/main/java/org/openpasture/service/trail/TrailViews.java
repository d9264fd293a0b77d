package org.openpasture.service.trail;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.QuoteMode;
import org.openpasture.api.trail.TrailView;
import org.openpasture.core.text.Text;
import org.openpasture.store.registry.RegistryStore.TrailEntry;
import tools.jackson.databind.json.JsonMapper;

/** Says what changed between two states of a thing, part by part. */
final class TrailViews {
    private static final CSVFormat TABLE =
            CSVFormat.RFC4180.builder().setQuoteMode(QuoteMode.ALL).get();
    private final JsonMapper mapper = JsonMapper.builder().build();

    TrailView view(TrailEntry entry) {
        Map<String, Object> before = Differences.parts(entry.before());
        Map<String, Object> after = Differences.parts(entry.after());
        boolean deed = entry.before() == null && after.keySet().equals(java.util.Set.of("what"));
        return new TrailView(
                entry.id(),
                entry.at(),
                entry.person(),
                entry.kind(),
                entry.entityId(),
                Objects.toString(after.getOrDefault("name", before.getOrDefault("name", "")), ""),
                deed
                        ? String.valueOf(after.get("what"))
                        : entry.before() == null ? "made" : entry.after() == null ? "removed" : "changed",
                entry.source(),
                deed ? Map.of() : Differences.between(before, after));
    }

    /** A table for other programs; a cell never begins a formula. */
    String csv(List<TrailView> entries) {
        StringBuilder text = new StringBuilder();
        try (CSVPrinter printer = new CSVPrinter(text, TABLE)) {
            printer.printRecord("time", "person", "from", "action", "kind", "name", "id", "changes");
            for (TrailView entry : entries) {
                printer.printRecord(Stream.of(
                                entry.at().toString(),
                                entry.person(),
                                entry.source(),
                                entry.action(),
                                entry.kind(),
                                entry.name(),
                                entry.id(),
                                mapper.writeValueAsString(entry.changes()))
                        .map(Text::cell));
            }
        } catch (IOException e) {
            throw new UncheckedIOException("text in memory can always be written", e);
        }
        return text.toString();
    }
}
