package org.openpasture.store.telemetry;

/**
 * How much room the records take, and what is to come at the rate of the last day.
 *
 * @param fileBytes of {@code telemetry.db} with its write-ahead log
 * @param reusableBytes of it that are free inside, and are filled before the file grows
 * @param chunkBytes readings in full detail
 * @param summaryBytes hours and days
 * @param frames in the frame log
 * @param frameBytes about how much they take
 * @param waveformBytes of the waveforms of all points
 * @param freeBytes on the disk
 * @param countedHours over how many hours the rate was counted; below a quarter of an hour it says nothing
 * @param readingsPerDay that come in live
 * @param bytesPerDay that they and the frames take once sealed
 */
public record Space(
        long fileBytes,
        long reusableBytes,
        long chunkBytes,
        long summaryBytes,
        long frames,
        long frameBytes,
        long waveformBytes,
        long freeBytes,
        double countedHours,
        double readingsPerDay,
        double bytesPerDay) {}
