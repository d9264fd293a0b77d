/** The journal, the frame log, radio sessions and the one thread that writes them. It knows no inlet and no rule. */
package org.openpasture.store.telemetry;
