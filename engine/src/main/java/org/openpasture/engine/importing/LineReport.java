package org.openpasture.engine.importing;

import java.util.ArrayList;
import java.util.List;
import org.openpasture.api.reading.ImportReport;

/**
 * Counts the lines of a file that were taken and those that were refused, and keeps the first reasons. For one thread.
 */
public final class LineReport {
    private static final int PROBLEMS_SHOWN = 50;

    private final List<ImportReport.LineProblem> problems = new ArrayList<>();
    private int accepted;
    private int refused;

    public void accept() {
        accepted++;
    }

    public void refuse(long line, String reason) {
        refused++;
        if (problems.size() < PROBLEMS_SHOWN) {
            problems.add(new ImportReport.LineProblem(line, reason));
        }
    }

    /** What came of the file so far. */
    public ImportReport report(boolean dryRun) {
        return new ImportReport(accepted, refused, problems, dryRun);
    }
}
