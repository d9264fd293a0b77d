package org.openpasture.api.reading;

import java.util.List;

/**
 * What became of an import.
 *
 * @param accepted readings that are on disk now, or would be in a dry run
 * @param refused how many lines were not taken
 * @param problems the first of them, with the reason
 */
public record ImportReport(int accepted, int refused, List<LineProblem> problems, boolean dryRun) {
    /**
     * A line that was not taken.
     *
     * @param line counted from 1, the header is line 1
     */
    public record LineProblem(long line, String reason) {}
}
