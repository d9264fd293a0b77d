package org.openpasture.service.access;

import java.util.Optional;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.MeansForLimits;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * Makes the changes that the person of the request wishes. Rights and rules are looked at inside the registry's lock,
 * by what is registered then, so that nothing changes between the look and the change. Safe for any thread.
 */
@Component
public class Editor {
    private final RegistryStore registry;
    private final Reader reader;
    private final TelemetryStore telemetry;

    Editor(RegistryStore registry, Reader reader, TelemetryStore telemetry) {
        this.telemetry = telemetry;
        this.registry = registry;
        this.reader = reader;
    }

    /**
     * Changes what is registered, or throws the refusal as a problem; the change is on disk on return. Points that are
     * given limits for a mean get that mean, whichever way the change comes.
     *
     * @param edit what becomes of the wish, by what is registered and what the person may do
     * @return what the person may do after it
     */
    public Access edit(Function<Access, Edited> edit) {
        Person asks = reader.person();
        Registry after = registry.change(asks.name(), now -> switch (edit.apply(access(now, asks))) {
            case Edited.Changes changes ->
                MeansForLimits.with(now, changes, telemetry::highestPoint, Accounts::newId)
                        .steps();
            case Edited.Refused refused -> throw Problem.of(refused);
        });
        return access(after, asks);
    }

    /**
     * The same with something, such as a secret, that has to be there before the change is told of.
     *
     * @param prepare puts it there; not done if the change would be refused, nor is the change if this throws
     * @param undo takes it away if the change fails after all
     */
    public Access edit(Function<Access, Edited> edit, Runnable prepare, Runnable undo) {
        check(edit);
        prepare.run();
        try {
            return edit(edit);
        } catch (RuntimeException e) {
            undo.run();
            throw e;
        }
    }

    /** Throws the refusal that a change would meet now, and changes nothing. */
    public void check(Function<Access, Edited> edit) {
        if (edit.apply(reader.access()) instanceof Edited.Refused refused) {
            throw Problem.of(refused);
        }
    }

    /** Throws the refusal, if there is one by what is registered now. */
    public void require(Function<Access, Optional<Edited.Refused>> refusal) {
        refusal.apply(reader.access()).ifPresent(refused -> {
            throw Problem.of(refused);
        });
    }

    private Access access(Registry now, Person asks) {
        return now.find(Person.class, asks.id())
                .map(person -> reader.access(now, person))
                .orElseThrow(() -> Problem.unauthorised("Your account is gone."));
    }
}
