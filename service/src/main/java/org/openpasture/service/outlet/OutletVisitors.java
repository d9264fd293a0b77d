package org.openpasture.service.outlet;

import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.Scope;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.inlet.BrokerDesk;
import org.openpasture.inlets.broker.BrokerGuard;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/**
 * People who subscribe to what outlets publish by the broker of this service: with their name and their password, or an
 * API token instead of it (which is the only way for who has a second factor), to topics of outlets whose site they may
 * look at.
 */
@Component
public class OutletVisitors implements BrokerDesk.Visitors {
    private final Accounts accounts;
    private final RegistryStore registry;

    OutletVisitors(Accounts accounts, RegistryStore registry) {
        this.accounts = accounts;
        this.registry = registry;
    }

    @Override
    public Optional<BrokerGuard.Member> signIn(String name, String password, String source) {
        Optional<Accounts.Program> program = accounts.program(name, password);
        if (program.isPresent()) {
            return program.map(of -> new Reader(of.person(), of.scope(), () -> accounts.isOpen(of.tokenHash())));
        }
        try {
            Person person = accounts.authenticate(name, password, null, source);
            String credential = accounts.credentialOf(person.id());
            return Optional.of(new Reader(
                    person, Scope.ALL, () -> accounts.credentialOf(person.id()).equals(credential)));
        } catch (Problem wrong) {
            return Optional.empty();
        }
    }

    private final class Reader implements BrokerGuard.Member {
        private final Person person;
        private final Scope scope;
        private final BooleanSupplier holds;

        private Reader(Person person, Scope scope, BooleanSupplier holds) {
            this.person = person;
            this.scope = scope;
            this.holds = holds;
        }

        @Override
        public String key() {
            return "person " + person.id();
        }

        /** The account is there, with the password or token that they gave. */
        @Override
        public boolean isWelcome() {
            return registry.now().find(Person.class, person.id()).isPresent() && holds.getAsBoolean();
        }

        @Override
        public boolean mayPublish(String topic) {
            return false;
        }

        /**
         * A filter that could also bring what is published for others is refused: its part before the first wildcard
         * has to lie within one outlet's topic.
         */
        @Override
        public boolean maySubscribe(String filter) {
            return mayLookAt(own -> Destination.covers(own.topic(), filter));
        }

        @Override
        public boolean mayReceive(String topic) {
            return mayLookAt(own -> own.pattern().match(topic).isPresent());
        }

        private boolean mayLookAt(Predicate<Destination.OwnTopic> which) {
            Registry now = registry.now();
            return now.find(Person.class, person.id())
                    .filter(one -> now.all(Outlet.class).stream()
                            .anyMatch(outlet -> outlet.destination() instanceof Destination.OwnTopic own
                                    && which.test(own)
                                    && new Access(now, one, scope).may(Right.LOOK, outlet.siteId())))
                    .isPresent();
        }

        @Override
        public CompletableFuture<?> published(String topic, byte[] payload) {
            return CompletableFuture.failedFuture(new IllegalStateException("people do not publish"));
        }
    }
}
