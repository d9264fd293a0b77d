package org.openpasture.api.record;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How much is kept, how much room it takes, and what is to come.
 *
 * @param readings of all points
 * @param waiting of them in memory and journal, not yet in chunks
 * @param fileBytes of the records' files on the disk
 * @param reusableBytes free inside of them, filled before they grow
 * @param detailBytes of every reading
 * @param summaryBytes of hours and days
 * @param frames in the frame log
 * @param frameBytes of the frame log, about
 * @param waveformBytes of vibration waveforms
 * @param freeBytes left on the disk
 * @param bytesPerReading on the disk, summaries included; null while nothing is sealed
 * @param readingsPerDay that come in live, by the last day; null while too little was counted
 * @param bytesPerYear that a year takes at this rate; null likewise
 * @param diskFullInDays at this rate; null if that is not known or further off than a century
 * @param trouble why nothing can be written now, in words; null while all is well
 * @param clockRemark what is odd about the host's clock; null while nothing is
 */
public record RecordsView(
        long readings,
        long waiting,
        long fileBytes,
        long reusableBytes,
        long detailBytes,
        long summaryBytes,
        long frames,
        long frameBytes,
        long waveformBytes,
        long freeBytes,
        @Nullable Double bytesPerReading,
        @Nullable Double readingsPerDay,
        @Nullable Long bytesPerYear,
        @Nullable Long diskFullInDays,
        @Nullable String trouble,
        @Nullable String clockRemark,
        List<SiteSpace> sites) {

    /** What the points of a site take, the largest first. */
    public record SiteSpace(String siteId, String name, long readings, long bytes, List<PointSpace> points) {}

    /** What a point takes. */
    public record PointSpace(String pointId, int number, String name, String place, long readings, long bytes) {}
}
