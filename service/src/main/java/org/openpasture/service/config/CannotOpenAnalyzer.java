package org.openpasture.service.config;

import org.openpasture.store.sqlite.CannotOpen;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/**
 * Says in two sentences why the service does not start when a file of the records is damaged, instead of a stack trace.
 */
class CannotOpenAnalyzer extends AbstractFailureAnalyzer<CannotOpen> {
    @Override
    protected FailureAnalysis analyze(Throwable root, CannotOpen cause) {
        return new FailureAnalysis(
                String.valueOf(cause.getMessage()),
                "The backups are listed in the folder backups of the data folder; see docs/records.md.",
                cause);
    }
}
