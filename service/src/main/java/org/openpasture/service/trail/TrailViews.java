package org.openpasture.service.trail;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.openpasture.api.trail.TrailView;
import org.openpasture.service.web.CsvTable;
import org.openpasture.store.registry.RegistryStore.TrailEntry;
import tools.jackson.databind.json.JsonMapper;

/** Says what changed between two states of a thing, part by part. */
public final class TrailViews {
    private final JsonMapper mapper = JsonMapper.builder().build();

    public TrailView view(TrailEntry entry) {
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
        return CsvTable.of(
                List.of("time", "person", "from", "action", "kind", "name", "id", "changes"),
                entries.stream()
                        .map(entry -> List.<Object>of(
                                entry.at(),
                                entry.person(),
                                entry.source(),
                                entry.action(),
                                entry.kind(),
                                entry.name(),
                                entry.id(),
                                mapper.writeValueAsString(entry.changes())))
                        .toList());
    }
}
