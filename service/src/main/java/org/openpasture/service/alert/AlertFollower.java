package org.openpasture.service.alert;

import java.util.Optional;
import org.jooq.DSLContext;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.judging.Effect;

/** Takes note of what happens to alerts, in the same step in which it becomes durable. */
public interface AlertFollower {
  /** Something happened to an alert, for the first time. */
  void follow(DSLContext dsl, Effect effect, Optional<Alert> alert);
}
