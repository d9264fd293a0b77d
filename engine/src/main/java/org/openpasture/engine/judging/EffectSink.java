package org.openpasture.engine.judging;

import java.util.List;
import org.openpasture.core.judging.Effect;

/** Carries out what the judging core decided. */
public interface EffectSink {
    /** Durable when this returns; doing it again changes nothing. */
    void carryOut(List<Effect> effects);

    /** The ids of all alerts that were raised and are not closed, by what was carried out. */
    List<String> open();
}
