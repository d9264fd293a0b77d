package org.openpasture.service.people;

import java.util.List;
import org.openpasture.api.people.StarredView;
import org.openpasture.api.problem.Require;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.people.StarredPages;
import org.openpasture.core.registry.Change;
import org.openpasture.service.access.Reader;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The pages that people keep at hand. */
@RestController
class StarredController {
    private final RegistryStore registry;
    private final Reader reader;

    StarredController(RegistryStore registry, Reader reader) {
        this.registry = registry;
        this.reader = reader;
    }

    /** Which pages the reader keeps at hand, and which one opens first. */
    @GetMapping("/api/v1/session/starred")
    StarredView mine() {
        String person = reader.person().id();
        StarredPages starred = reader.now().find(StarredPages.class, person).orElseGet(() -> StarredPages.none(person));
        return new StarredView(starred.pages(), starred.start());
    }

    /** Changes which pages the reader keeps at hand, and which one opens first. */
    @PutMapping("/api/v1/session/starred")
    StarredView change(@RequestBody StarredView wished) {
        reader.requireScope(Right.EDIT, "change your starred pages");
        Person person = reader.person();
        StarredPages starred =
                new StarredPages(person.id(), Require.present(wished.pages(), "the starred pages"), wished.start());
        registry.change(person.name(), List.of(new Change.Put(starred)));
        return new StarredView(starred.pages(), starred.start());
    }
}
