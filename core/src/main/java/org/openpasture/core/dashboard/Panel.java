package org.openpasture.core.dashboard;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.vibration.SpectrumKind;

/**
 * One panel of a dashboard, by what it shows. What all have stands beside the kind: the parts of the {@link Frame} and
 * those of the kind are on one level where a panel is written.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Panel.Value.class, name = "value"),
    @JsonSubTypes.Type(value = Panel.Line.class, name = "line"),
    @JsonSubTypes.Type(value = Panel.Dial.class, name = "dial"),
    @JsonSubTypes.Type(value = Panel.Vessel.class, name = "vessel"),
    @JsonSubTypes.Type(value = Panel.States.class, name = "states"),
    @JsonSubTypes.Type(value = Panel.Bars.class, name = "bars"),
    @JsonSubTypes.Type(value = Panel.Days.class, name = "days"),
    @JsonSubTypes.Type(value = Panel.Hours.class, name = "hours"),
    @JsonSubTypes.Type(value = Panel.Pairs.class, name = "pairs"),
    @JsonSubTypes.Type(value = Panel.Spread.class, name = "spread"),
    @JsonSubTypes.Type(value = Panel.Directions.class, name = "directions"),
    @JsonSubTypes.Type(value = Panel.Spectrum.class, name = "spectrum"),
    @JsonSubTypes.Type(value = Panel.Exposure.class, name = "exposure"),
    @JsonSubTypes.Type(value = Panel.Tally.class, name = "tally"),
    @JsonSubTypes.Type(value = Panel.Picture.class, name = "picture"),
    @JsonSubTypes.Type(value = Panel.OnPlan.class, name = "plan"),
    @JsonSubTypes.Type(value = Panel.Tracks.class, name = "map"),
    @JsonSubTypes.Type(value = Panel.FromCamera.class, name = "camera"),
    @JsonSubTypes.Type(value = Panel.OpenAlerts.class, name = "alerts"),
    @JsonSubTypes.Type(value = Panel.Asked.class, name = "asked"),
    @JsonSubTypes.Type(value = Panel.Control.class, name = "control"),
    @JsonSubTypes.Type(value = Panel.Guidance.class, name = "guidance"),
    @JsonSubTypes.Type(value = Panel.Text.class, name = "text"),
    @JsonSubTypes.Type(value = Panel.Clock.class, name = "clock")
})
public sealed interface Panel {
    /** Hours of the usual window of an exposure: a shift. */
    int SHIFT_MINUTES = 480;

    /** Where the band ends in which machines are judged. */
    double MACHINES_HZ = 1_000;

    Frame frame();

    /**
     * A number for each point, with age, fence mark and headroom.
     *
     * @param statistic what its readings of the range come to; null for the newest value
     */
    record Value(@JsonUnwrapped Frame frame, @Nullable Statistic statistic) implements Panel {}

    /**
     * Lines over time with limits.
     *
     * @param scale whether the scale is fixed by the limits, or fits what is drawn
     */
    record Line(@JsonUnwrapped Frame frame, @Nullable Scale scale) implements Panel {
        public Line {
            scale = scale == null ? Scale.FIXED : scale;
        }
    }

    /** A dial with zones for each point. */
    record Dial(@JsonUnwrapped Frame frame) implements Panel {}

    /**
     * A vessel for each point, filled as far as its value lies up the scale.
     *
     * @param shape how it is drawn
     */
    record Vessel(@JsonUnwrapped Frame frame, @Nullable Shape shape) implements Panel {
        public Vessel {
            shape = shape == null ? Shape.UPRIGHT : shape;
        }
    }

    /** A strip over time for each point, coloured by the zone, or by the words that stand for its values. */
    record States(@JsonUnwrapped Frame frame) implements Panel {}

    /** A table with a bar for each point. */
    record Bars(@JsonUnwrapped Frame frame, @Nullable Order order) implements Panel {
        public Bars {
            order = order == null ? Order.HEADROOM : order;
        }
    }

    /**
     * A table of days, a column for each point.
     *
     * @param statistic what the readings of a day come to; the mean if left out
     */
    record Days(@JsonUnwrapped Frame frame, @Nullable Statistic statistic) implements Panel {
        public Days {
            statistic = statistic == null ? Statistic.MEAN : statistic;
        }
    }

    /**
     * The hours of its first point, a row for each day: darker the higher.
     *
     * @param statistic what the readings of an hour come to; the mean if left out
     */
    record Hours(@JsonUnwrapped Frame frame, @Nullable Statistic statistic) implements Panel {
        public Hours {
            statistic = statistic == null ? Statistic.MEAN : statistic;
        }
    }

    /** Two points against each other: the first lies across, the second up, and what was at one time is a dot. */
    record Pairs(@JsonUnwrapped Frame frame) implements Panel {}

    /**
     * For how long the value of its first point lay where in the range.
     *
     * @param curve whether as the distribution, or as the duration curve
     */
    record Spread(@JsonUnwrapped Frame frame, @Nullable Curve curve) implements Panel {
        public Spread {
            curve = curve == null ? Curve.DISTRIBUTION : curve;
        }
    }

    /** The directions of a machine side by side. */
    record Directions(@JsonUnwrapped Frame frame) implements Panel {}

    /**
     * What the newest waveform of its points shows.
     *
     * @param form whether as a spectrum, as the waveform itself, or as spectra one after the other over the range
     * @param spectrum what the spectrum is of; the velocity if left out
     * @param untilHz where the spectrum ends; {@link #MACHINES_HZ} if left out
     */
    record Spectrum(
            @JsonUnwrapped Frame frame,
            @Nullable Form form,
            @Nullable SpectrumKind spectrum,
            @Nullable Double untilHz) implements Panel {
        public Spectrum {
            form = form == null ? Form.SPECTRUM : form;
            spectrum = spectrum == null ? SpectrumKind.VELOCITY : spectrum;
            untilHz = untilHz == null ? Double.valueOf(MACHINES_HZ) : untilHz;
        }
    }

    /**
     * How much of what a limit allows over a window the running mean has used up, for each point.
     *
     * @param minutes the window; {@link #SHIFT_MINUTES} if left out
     */
    record Exposure(@JsonUnwrapped Frame frame, @Nullable Integer minutes) implements Panel {
        public Exposure {
            minutes = minutes == null ? SHIFT_MINUTES : minutes;
        }

        /** The length of the window. */
        @Override
        public Integer minutes() {
            return minutes == null ? SHIFT_MINUTES : minutes;
        }
    }

    /**
     * All points together.
     *
     * @param statistic what their newest values come to; null for how many are in which state
     */
    record Tally(@JsonUnwrapped Frame frame, @Nullable Statistic statistic) implements Panel {}

    /**
     * A drawing that moves, fills, opens or takes a colour with the newest value of its first point.
     *
     * @param onFrom from which value it runs or is open; 1 if left out
     */
    record Picture(
            @JsonUnwrapped Frame frame,
            @Nullable Drawing drawing,
            @Nullable Double onFrom) implements Panel {
        public Picture {
            drawing = drawing == null ? Drawing.PUMP : drawing;
            onFrom = onFrom == null ? Double.valueOf(1) : onFrom;
        }
    }

    /**
     * A map of where things were in the range: a track for each place with a latitude and a longitude among the points,
     * in the colours of the zones of its first other point. No base map is fetched from anywhere.
     */
    record Tracks(@JsonUnwrapped Frame frame) implements Panel {}

    /**
     * The picture of a camera, fetched again and again.
     *
     * @param cameraId a camera whose place its maker may see
     */
    record FromCamera(@JsonUnwrapped Frame frame, String cameraId) implements Panel {}

    /** The picture of the place that its selection names, with what is marked on it. */
    record OnPlan(@JsonUnwrapped Frame frame) implements Panel {}

    /** Open alerts, of all points or of its own. */
    record OpenAlerts(@JsonUnwrapped Frame frame) implements Panel {}

    /** The devices that are polled and feed its points: their intervals, and writing of values. */
    record Asked(@JsonUnwrapped Frame frame) implements Panel {}

    /** The radio devices that feed its points: what they can be told to keep or do, and what became of it. */
    record Control(@JsonUnwrapped Frame frame) implements Panel {}

    /**
     * Steps that somebody goes through, such as an evening round. Who has gone through them writes it into the logbook
     * of the place that its selection names.
     *
     * @param steps in their order, a line each
     */
    record Guidance(@JsonUnwrapped Frame frame, @Nullable List<String> steps) implements Panel {
        public Guidance {
            steps = steps == null ? List.of() : List.copyOf(steps);
        }
    }

    /**
     * Words of people.
     *
     * @param text Markdown (CommonMark) without HTML
     */
    record Text(@JsonUnwrapped Frame frame, @Nullable String text) implements Panel {
        public Text {
            text = text == null ? "" : text;
        }
    }

    /**
     * The time of day.
     *
     * @param zone where; null for that of whoever looks
     */
    record Clock(@JsonUnwrapped Frame frame, @Nullable ZoneId zone) implements Panel {}

    /** How the vertical scale of lines is chosen. */
    enum Scale {
        FIXED,
        FIT;

        @JsonCreator
        public static Scale of(String id) {
            return Ids.of(values(), Scale::id, "scale", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How a waveform is shown. */
    enum Form {
        SPECTRUM,
        WAVEFORM,
        WATERFALL;

        @JsonCreator
        public static Form of(String id) {
            return Ids.of(values(), Form::id, "form of a waveform", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How the times of values are shown. */
    enum Curve {
        DISTRIBUTION,
        DURATION;

        @JsonCreator
        public static Curve of(String id) {
            return Ids.of(values(), Curve::id, "curve", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How a vessel is drawn. */
    enum Shape {
        UPRIGHT,
        LYING,
        CONE,
        BALL,
        OPEN;

        @JsonCreator
        public static Shape of(String id) {
            return Ids.of(values(), Shape::id, "shape", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** In which order rows stand. */
    enum Order {
        HEADROOM,
        VALUE,
        NAME;

        @JsonCreator
        public static Order of(String id) {
            return Ids.of(values(), Order::id, "order", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The drawings that there are. */
    enum Drawing {
        PUMP,
        FAN,
        VALVE,
        DOOR,
        TANK,
        SILO,
        LORRY,
        SHED;

        @JsonCreator
        public static Drawing of(String id) {
            return Ids.of(values(), Drawing::id, "drawing", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }
}
