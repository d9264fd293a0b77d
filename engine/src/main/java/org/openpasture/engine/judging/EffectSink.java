package org.openpasture.engine.judging;

import java.util.List;
import org.openpasture.core.judging.Effect;

/** Carries out what the judging core decided. */
public interface EffectSink {
    /** Durable when this returns; doing it again changes nothing. */
    void carryOut(List<Effect> effects);
}
