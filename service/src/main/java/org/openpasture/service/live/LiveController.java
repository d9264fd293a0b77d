package org.openpasture.service.live;

import java.util.Arrays;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.Scope;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The live stream of readings, alerts, frames and states. */
@RestController
class LiveController {
    private final LiveHub hub;
    private final Accounts accounts;
    private final Reader reader;
    private final RegistryStore registry;

    LiveController(LiveHub hub, Accounts accounts, Reader reader, RegistryStore registry) {
        this.accounts = accounts;
        this.hub = hub;
        this.reader = reader;
        this.registry = registry;
    }

    /**
     * Opens the stream.
     *
     * @param events names, separated by commas: reading, alert, frame, gateway, device, news, changed
     */
    @GetMapping(path = "/api/v1/stream", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter stream(@RequestParam(defaultValue = "reading,alert,gateway,device,changed") String events) {
        Set<String> names = Arrays.stream(events.split(",")).map(String::strip).collect(Collectors.toSet());
        String session = reader.tokenHash();
        Person person = reader.person();
        return hub.open(
                names,
                new LiveHub.Reader(
                        person.id(), session, () -> accounts.isOpen(session), mayKnow(person.id(), reader.scope())));
    }

    private Predicate<LiveEvent> mayKnow(String personId, Scope scope) {
        return event -> {
            Optional<Person> person = registry.now().find(Person.class, personId);
            if (person.isEmpty() || event.placeId() == null) {
                return person.isPresent();
            }
            Access access = new Access(registry.now(), person.get(), scope);
            return event.pointId() == null
                    ? access.may(Right.LOOK, event.placeId())
                    : access.registry()
                            .find(Point.class, event.pointId())
                            .filter(access::maySee)
                            .isPresent();
        };
    }
}
