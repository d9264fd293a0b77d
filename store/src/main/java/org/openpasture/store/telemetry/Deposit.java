package org.openpasture.store.telemetry;

import java.util.List;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.PointWaveform;

/**
 * What must become durable together: one frame with its readings and the radio state after it, or a piece of an import.
 */
public record Deposit(
        List<Event> events,
        List<Frame> frames,
        List<RadioChange> radio,
        List<KeptAnswer> answers,
        List<PointWaveform> waveforms) {
    public Deposit {
        events = List.copyOf(events);
        frames = List.copyOf(frames);
        radio = List.copyOf(radio);
        answers = List.copyOf(answers);
        waveforms = List.copyOf(waveforms);
    }

    /** Without waveforms, and without an answer that is kept. */
    public Deposit(List<Event> events, List<Frame> frames, List<RadioChange> radio) {
        this(events, frames, radio, List.of(), List.of());
    }

    /** Whether there is nothing to write. */
    public boolean isEmpty() {
        return events.isEmpty() && isOnlyEvents();
    }

    /** Whether nothing is written but the journal. */
    boolean isOnlyEvents() {
        return frames.isEmpty() && radio.isEmpty() && answers.isEmpty() && waveforms.isEmpty();
    }

    public static Deposit of(Event event) {
        return new Deposit(List.of(event), List.of(), List.of());
    }

    public static Deposit of(Frame frame) {
        return new Deposit(List.of(), List.of(frame), List.of());
    }

    /** Changes of the radio state; without any, what was handed in before is on disk when this is. */
    public static Deposit of(RadioChange... changes) {
        return new Deposit(List.of(), List.of(), List.of(changes));
    }
}
