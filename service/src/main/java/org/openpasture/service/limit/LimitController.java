package org.openpasture.service.limit;

import java.util.Collection;
import java.util.List;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The limit library: shipped sets are read, own ones may be changed. */
@RestController
class LimitController {
    private final RegistryStore registry;
    private final Reader reader;

    LimitController(RegistryStore registry, Reader reader) {
        this.registry = registry;
        this.reader = reader;
    }

    @GetMapping("/api/v1/limits")
    Collection<LimitSet> list() {
        return reader.access().registry().all(LimitSet.class);
    }

    @GetMapping("/api/v1/limits/{id}")
    LimitSet one(@PathVariable String id) {
        return reader.find(LimitSet.class, id, "limit set");
    }

    /** Makes a set of one's own, for example an adjusted copy of a shipped one. */
    @PostMapping("/api/v1/limits")
    @ResponseStatus(HttpStatus.CREATED)
    LimitSet make(@RequestBody LimitSet set) {
        return save(Accounts.newId(), set);
    }

    @PutMapping("/api/v1/limits/{id}")
    LimitSet change(@PathVariable String id, @RequestBody LimitSet set) {
        if (reader.find(LimitSet.class, id, "limit set").shipped()) {
            throw Problem.conflict(
                    "A shipped limit set is read-only, since its figures are those of a standard.",
                    "Copy it and adjust the copy.");
        }
        return save(id, set);
    }

    private LimitSet save(String id, LimitSet set) {
        reader.requireAnywhere(Right.EDIT, "change limit sets");
        LimitSet own = new LimitSet(
                id, set.title(), set.source(), set.quantity(), set.unit(), set.appliesTo(), false, set.zones());
        registry.change(reader.person().name(), List.of(new Change.Put(own)));
        return own;
    }
}
