package org.openpasture.core.bacnet;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Reads what a controller logged by itself (ReadRange of a trend log's buffer, ASHRAE 135, 15.8). Times are the
 * controller's own, without a zone.
 */
public final class TrendLog {
    private TrendLog() {}

    /** The first so many entries after a time. */
    public static Apdu after(int invokeId, ObjectId log, LocalDateTime time, int most) {
        byte[] content = new TagWriter()
                .object(0, log)
                .unsigned(1, Property.LOG_BUFFER)
                .open(7)
                .datum(new Datum.Date(Optional.of(time.toLocalDate())))
                .datum(new Datum.Time(Optional.of(time.toLocalTime())))
                .datum(new Datum.Signed(most))
                .close(7)
                .bytes();
        return new Apdu.Confirmed(invokeId, Apdu.Service.READ_RANGE, content);
    }

    /** One logged number. */
    public record Entry(LocalDateTime time, double value) {}

    /**
     * A piece of the log.
     *
     * @param more whether entries follow that did not fit
     * @param last the time of the last entry, also if it is no number; empty if there are none
     */
    public record Piece(List<Entry> entries, boolean more, Optional<LocalDateTime> last) {
        public Piece {
            entries = List.copyOf(entries);
        }
    }

    /**
     * Reads the content of the answer. Entries that are no numbers (the log was switched on, the clock was set, the
     * value could not be read) are left out.
     *
     * @throws IllegalArgumentException if it is malformed
     */
    public static Piece answer(byte[] content) {
        TagReader in = new TagReader(content, 0);
        in.skipReference();
        Datum.Bits flags = in.bits(3);
        in.unsigned(4);
        in.open(5);
        List<Entry> entries = new ArrayList<>();
        Optional<LocalDateTime> last = Optional.empty();
        while (!in.isClosing(5)) {
            in.open(0);
            Optional<LocalDateTime> time = time(in.datum(), in.datum());
            in.close(0);
            in.open(1);
            Optional<Double> value = value(in);
            in.close(1);
            in.skip(2);
            last = time.isPresent() ? time : last;
            if (time.isPresent() && value.isPresent() && Double.isFinite(value.get())) {
                entries.add(new Entry(time.get(), value.get()));
            }
        }
        in.close(5);
        return new Piece(entries, flags.has(2), last);
    }

    private static Optional<LocalDateTime> time(Datum date, Datum time) {
        return date instanceof Datum.Date(var day)
                        && time instanceof Datum.Time(var clock)
                        && day.isPresent()
                        && clock.isPresent()
                ? Optional.of(LocalDateTime.of(day.get(), clock.get()))
                : Optional.empty();
    }

    /**
     * The choices of a log's datum: 0 status, 1 boolean, 2 real, 3 enumerated, 4 unsigned, 5 signed, 6 bits, 7 null, 8
     * error, 9 change of the clock, 10 other.
     */
    private static Optional<Double> value(TagReader in) {
        if (in.isContext(1) || in.isContext(3) || in.isContext(4)) {
            int choice = in.isContext(1) ? 1 : in.isContext(3) ? 3 : 4;
            return Optional.of((double) in.unsigned(choice));
        }
        if (in.isContext(2)) {
            return new Datum.Real(in.real(2)).number().stream().boxed().findFirst();
        }
        if (in.isContext(5)) {
            return Optional.of((double) in.signed(5));
        }
        if (in.isOpening(8) || in.isOpening(10)) {
            int choice = in.isOpening(8) ? 8 : 10;
            in.open(choice);
            in.dataUntilClosing(choice);
            return Optional.empty();
        }
        for (int choice : new int[] {0, 6, 7, 9}) {
            if (in.skip(choice)) {
                return Optional.empty();
            }
        }
        throw new IllegalArgumentException("an entry of a log is of no known kind");
    }
}
