package org.openpasture.service.people;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.openpasture.api.people.UnitsRequest;
import org.openpasture.api.people.UnitsView;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.UnitSystem;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.PersonUnits;
import org.openpasture.service.access.Reader;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** In which units people read values. */
@RestController
class UnitsController {
    private final RegistryStore registry;
    private final Reader reader;

    UnitsController(RegistryStore registry, Reader reader) {
        this.registry = registry;
        this.reader = reader;
    }

    /** In which units the reader reads values. */
    @GetMapping("/api/v1/session/units")
    UnitsView mine() {
        return view(PersonUnits.of(reader.now(), reader.person().id()));
    }

    /** Changes in which units the reader reads values. What is kept, judged and exported to programs stays as it is. */
    @PutMapping("/api/v1/session/units")
    UnitsView change(@RequestBody UnitsRequest wished) {
        reader.requireScope(Right.EDIT, "change your units");
        Person person = reader.person();
        Map<String, String> units = new TreeMap<>();
        if (wished.system() != null) {
            UnitSystem.of(wished.system()).units().forEach((quantity, unit) -> units.put(quantity.id(), unit));
        }
        units.putAll(Objects.requireNonNullElse(wished.units(), Map.of()));
        DisplayUnits chosen = DisplayUnits.of(person.id(), units);
        registry.change(person.name(), List.of(new Change.Put(chosen)));
        return view(chosen);
    }

    private static UnitsView view(DisplayUnits chosen) {
        Map<String, String> units = new TreeMap<>();
        chosen.chosen().forEach(one -> units.put(one.quantity().id(), one.unit()));
        return new UnitsView(
                units,
                Arrays.stream(Quantity.values())
                        .filter(quantity -> UnitSystem.choices(quantity).size() > 1)
                        .map(quantity -> new UnitsView.Choice(
                                quantity.id(),
                                quantity.title(),
                                UnitSystem.choices(quantity),
                                UnitSystem.IMPERIAL.unit(quantity)))
                        .toList(),
                chosen.chosen().stream()
                        .flatMap(one -> Units.alike(one.unit()).stream()
                                .map(from -> chosen.change(one.quantity(), from))
                                .filter(change -> !change.changesNothing())
                                .map(change -> new UnitsView.Change(
                                        one.quantity().id(),
                                        change.from(),
                                        change.to(),
                                        change.factor(),
                                        change.offset(),
                                        change.moreDecimals())))
                        .toList());
    }
}
