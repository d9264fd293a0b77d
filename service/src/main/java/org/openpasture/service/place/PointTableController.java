package org.openpasture.service.place;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointRow;
import org.openpasture.api.place.PointRowView;
import org.openpasture.api.place.PointRows;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.PointField;
import org.openpasture.core.edit.PointTable;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.web.CsvTable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Many points at once, as a table. */
@RestController
class PointTableController {
    private static final String ID = "id";
    private final Reader reader;
    private final Editor editor;

    PointTableController(Reader reader, Editor editor) {
        this.reader = reader;
        this.editor = editor;
    }

    /**
     * Points that the reader may change, as rows of a table, by their numbers.
     *
     * @param place of this site, area or asset and what lies below it; null for all
     */
    @GetMapping("/api/v1/points/table")
    List<PointRow> table(@RequestParam(required = false) @Nullable String place) {
        Access access = reader.access();
        PointTable table = new PointTable(access);
        return access.registry().all(Point.class).stream()
                .filter(access::maySee)
                .filter(point -> access.may(Right.EDIT, point.placeId()))
                .filter(point -> place == null || access.registry().isWithin(point.placeId(), place))
                .sorted(Comparator.comparing(Point::number))
                .map(point -> new PointRow(point.id(), table.cells(point)))
                .toList();
    }

    /** The same as CSV: the id, the columns of a row, and what the point measures, which is only to be read. */
    @GetMapping("/api/v1/points/table/export")
    ResponseEntity<String> csv(@RequestParam(required = false) @Nullable String place) {
        Registry now = reader.now();
        List<String> header = new ArrayList<>(List.of(ID));
        Stream.of(PointField.values()).map(PointField::id).forEach(header::add);
        header.addAll(List.of("number", "quantity", "unit"));
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"points.csv\"")
                .body(CsvTable.of(
                        header,
                        table(place).stream().map(row -> cells(now, row)).toList()));
    }

    private static List<Object> cells(Registry now, PointRow row) {
        Point point = now.find(Point.class, row.id()).orElseThrow();
        Map<PointField, String> cells = Objects.requireNonNullElse(row.cells(), Map.of());
        List<Object> all = new ArrayList<>(List.of(row.id()));
        Stream.of(PointField.values()).forEach(field -> all.add(cells.getOrDefault(field, "")));
        all.addAll(List.of(point.number(), point.quantity().title(), point.unit()));
        return all;
    }

    /**
     * The same as {@code PUT /api/v1/points/table} with CSV: a column "id", and those that are to be changed. Other
     * columns are passed over.
     */
    @PutMapping(path = "/api/v1/points/table", consumes = "text/csv")
    List<PointRowView> changeByCsv(@RequestBody byte[] file, @RequestParam(defaultValue = "false") boolean dryRun) {
        return change(
                new PointRows(CsvTable.read(file, PointTable.MOST).stream()
                        .map(PointTableController::row)
                        .toList()),
                dryRun);
    }

    private static PointRow row(Map<String, String> cells) {
        Map<PointField, String> set = new EnumMap<>(PointField.class);
        Stream.of(PointField.values())
                .filter(field -> cells.containsKey(field.id()))
                .forEach(field -> set.put(field, cells.getOrDefault(field.id(), "")));
        return new PointRow(cells.getOrDefault(ID, ""), set);
    }

    /**
     * Changes many points: all rows or none. What a cell was stands in the answer, so that the change can be taken
     * back.
     *
     * @param dryRun whether only to say what would become of each row
     */
    @PutMapping(path = "/api/v1/points/table", consumes = "application/json")
    List<PointRowView> change(@RequestBody PointRows wished, @RequestParam(defaultValue = "false") boolean dryRun) {
        List<PointTable.Row> rows = Objects.requireNonNullElse(wished.rows(), List.<PointRow>of()).stream()
                .map(row -> new PointTable.Row(row.id(), Objects.requireNonNullElse(row.cells(), Map.of())))
                .toList();
        if (dryRun) {
            reader.requireScope(Right.EDIT, "change points");
            return views(new PointTable(reader.access())
                    .plan(rows.stream().limit(PointTable.MOST).toList())
                    .outcomes());
        }
        AtomicReference<List<PointTable.Outcome>> outcomes = new AtomicReference<>(List.of());
        editor.edit(access -> {
            PointTable.Plan plan = new PointTable(access).plan(rows);
            outcomes.set(plan.outcomes());
            return plan.edit();
        });
        return views(outcomes.get());
    }

    private static List<PointRowView> views(List<PointTable.Outcome> outcomes) {
        return outcomes.stream()
                .map(outcome -> new PointRowView(
                        outcome.id(),
                        outcome.name(),
                        outcome.changed().stream()
                                .map(cell -> new PointRowView.Cell(cell.field(), cell.before(), cell.after()))
                                .toList(),
                        outcome.refusal()
                                .map(refusal -> refusal.what() + " " + refusal.todo())
                                .orElse(null)))
                .toList();
    }
}
