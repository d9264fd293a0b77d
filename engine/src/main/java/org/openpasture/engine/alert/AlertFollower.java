package org.openpasture.engine.alert;

import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.judging.Effect;

/** Takes note of what happens to alerts, in the same step in which it becomes durable. */
public interface AlertFollower {
    /**
     * Something happened to an alert, for the first time.
     *
     * @param alert looks it up, as it was raised
     */
    void follow(DSLContext dsl, Effect effect, Supplier<Optional<Alert>> alert);
}
