package org.openpasture.store.series;

import java.util.function.Consumer;
import org.jooq.DSLContext;

/** Runs something in one transaction on the thread that writes, between commits; it is on disk when this returns. */
public interface Writer {
    void write(Consumer<DSLContext> work);
}
