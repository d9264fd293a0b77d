package org.openpasture.core.edit;

import java.time.Duration;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Look;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.series.TimedMean;
import org.openpasture.core.text.Text;

/** Whether a panel can be shown, and shows nothing that whoever makes it may not see. */
final class PanelChecks {
    private static final int LOWEST_END_HZ = 50;
    private static final int HIGHEST_END_HZ = 100_000;
    private static final int MOST_ROWS = 100;
    private static final int LOWEST_ROW = 10_000;
    private static final int MOST_POINTS = 200;
    private static final int LONGEST_WORD = 40;
    private static final int LONGEST_TITLE = 120;
    private static final int LONGEST_TEXT = 20_000;
    private static final int MOST_STEPS = 30;
    private static final int LONGEST_STEP = 300;
    private static final Duration SHORTEST_RANGE = Duration.ofMinutes(1);
    private static final Duration LONGEST_RANGE = Duration.ofDays(5 * 366);

    private PanelChecks() {}

    /**
     * Why a panel is not taken; empty if it is.
     *
     * @param before the panels that the dashboard has: what they show of which nothing is left stays, so that a point
     *     that was removed or hidden does not lock the whole dashboard
     */
    static Optional<Refused> refusal(Access access, Panel panel, List<Panel> before) {
        Frame frame = panel.frame();
        Optional<Frame> old = before.stream()
                .map(Panel::frame)
                .filter(one -> one.id().equals(frame.id()))
                .findFirst();
        return place(frame)
                .or(() -> title(frame))
                .or(() -> points(access, frame, old))
                .or(() -> selection(access, frame, old))
                .or(() -> range(frame))
                .or(() -> look(frame))
                .or(() -> camera(access, panel, before))
                .or(() -> content(panel));
    }

    private static Optional<Refused> camera(Access access, Panel panel, List<Panel> before) {
        return !(panel instanceof Panel.FromCamera of)
                        || of.cameraId() != null
                                && (CameraEdits.find(access, of.cameraId()).isPresent()
                                        || before.stream()
                                                .anyMatch(one -> one instanceof Panel.FromCamera old
                                                        && old.cameraId().equals(of.cameraId())))
                ? Optional.empty()
                : refused(
                        panel.frame(),
                        "shows a camera that does not exist or that you may not see",
                        "Choose a camera from the list; an owner adds them under Settings, Cameras.");
    }

    private static Optional<Refused> place(Frame frame) {
        boolean fits = !frame.id().isBlank()
                && frame.id().length() <= LONGEST_WORD
                && frame.x() >= 0
                && frame.w() >= 1
                && frame.w() <= Frame.COLUMNS - frame.x()
                && frame.y() >= 0
                && frame.y() <= LOWEST_ROW
                && frame.h() >= 1
                && frame.h() <= MOST_ROWS;
        return fits
                ? Optional.empty()
                : refused(
                        frame,
                        "does not fit into the " + Frame.COLUMNS + " columns of a dashboard, or has no id",
                        "Give it an id, x from 0, w from 1 with x + w up to " + Frame.COLUMNS
                                + ", y from 0 and h from 1 to " + MOST_ROWS + ".");
    }

    private static Optional<Refused> title(Frame frame) {
        return frame.title().length() > LONGEST_TITLE || !ValueWords.isLine(frame.title())
                ? Optional.of(Refused.invalid(
                        "The title of a panel is one line of up to " + LONGEST_TITLE + " characters.",
                        "Shorten the title."))
                : Optional.empty();
    }

    private static Optional<Refused> points(Access access, Frame frame, Optional<Frame> old) {
        if (frame.pointIds().size() > MOST_POINTS) {
            return refused(frame, "names more than " + MOST_POINTS + " points", "Use a selection, or several panels.");
        }
        return frame.pointIds().stream()
                        .allMatch(id -> access.registry()
                                        .find(Point.class, id)
                                        .filter(access::maySee)
                                        .isPresent()
                                || old.filter(one -> one.pointIds().contains(id))
                                        .isPresent())
                ? Optional.empty()
                : refused(
                        frame,
                        "shows a point that does not exist or that you may not see",
                        "Choose points from the list.");
    }

    private static Optional<Refused> selection(Access access, Frame frame, Optional<Frame> old) {
        PointSelection selection = frame.selection();
        boolean known = selection == null
                || access.registry().place(selection.placeId()).isPresent()
                        && access.may(Right.LOOK, selection.placeId())
                || old.filter(one -> selection.equals(one.selection())).isPresent();
        return known
                ? Optional.empty()
                : refused(
                        frame,
                        "selects points of a place that does not exist or that you may not see",
                        "Choose a place from the list.");
    }

    private static Optional<Refused> range(Frame frame) {
        String range = frame.range();
        if (range == null) {
            return Optional.empty();
        }
        try {
            Duration length = Duration.parse(range);
            if (length.compareTo(SHORTEST_RANGE) >= 0 && length.compareTo(LONGEST_RANGE) <= 0) {
                return Optional.empty();
            }
        } catch (DateTimeParseException e) {
            // Said below.
        }
        return refused(
                frame,
                "looks back over '" + range + "', which is no time from a minute to five years",
                "Write it as PT6H, P1D or P30D (ISO 8601).");
    }

    private static Optional<Refused> look(Frame frame) {
        Look look = frame.look();
        if (look == null) {
            return Optional.empty();
        }
        if (!ValueWords.isUsable(look.decimals())) {
            return refused(frame, "has " + look.decimals() + " decimals", "Use 0 to " + ValueWords.MOST_DECIMALS + ".");
        }
        if (!isFinite(look.lowest())
                || !isFinite(look.highest())
                || look.lowest() != null && look.highest() != null && look.lowest() >= look.highest()) {
            return refused(frame, "has a scale that does not rise", "Let the scale end with more than it begins with.");
        }
        return ValueWords.areUsable(look.words())
                ? Optional.empty()
                : refused(frame, "has words for values that cannot be used", ValueWords.TODO);
    }

    private static boolean isFinite(@Nullable Double value) {
        return value == null || Double.isFinite(value);
    }

    private static Optional<Refused> content(Panel panel) {
        return switch (panel) {
            case Panel.Value value -> summed(value.frame(), value.statistic());
            case Panel.Days days -> summed(days.frame(), days.statistic());
            case Panel.Hours hours -> summed(hours.frame(), hours.statistic());
            case Panel.Exposure exposure ->
                exposure.minutes() < 1 || exposure.minutes() > TimedMean.LONGEST_MINUTES
                        ? refused(
                                exposure.frame(),
                                "has a window of " + exposure.minutes() + " minutes",
                                "Use a minute to 31 days (" + TimedMean.LONGEST_MINUTES + " minutes).")
                        : Optional.empty();
            case Panel.Spectrum spectrum -> {
                Double until = spectrum.untilHz();
                yield until == null || until >= LOWEST_END_HZ && until <= HIGHEST_END_HZ
                        ? Optional.empty()
                        : refused(
                                spectrum.frame(),
                                "shows a spectrum up to " + until + " Hz",
                                "Use " + LOWEST_END_HZ + " to " + HIGHEST_END_HZ + " Hz.");
            }
            case Panel.Picture picture ->
                isFinite(picture.onFrom())
                        ? Optional.empty()
                        : refused(picture.frame(), "begins to run at no number", "Enter a number.");
            case Panel.Text text -> text(text);
            case Panel.Line line -> Optional.empty();
            case Panel.Dial dial -> Optional.empty();
            case Panel.Vessel vessel -> Optional.empty();
            case Panel.States states -> Optional.empty();
            case Panel.Bars bars -> Optional.empty();
            case Panel.Pairs pairs -> Optional.empty();
            case Panel.Spread spread -> Optional.empty();
            case Panel.Directions directions -> Optional.empty();
            case Panel.Tally tally -> Optional.empty();
            case Panel.OnPlan plan ->
                plan.frame().selection() == null
                        ? refused(plan.frame(), "names no place", "Choose the place whose picture it shows.")
                        : Optional.empty();
            case Panel.Tracks tracks -> Optional.empty();
            case Panel.FromCamera camera -> Optional.empty();
            case Panel.OpenAlerts alerts -> Optional.empty();
            case Panel.Asked asked -> Optional.empty();
            case Panel.Control control -> Optional.empty();
            case Panel.Guidance guidance -> guidance(guidance);
            case Panel.Clock clock -> Optional.empty();
        };
    }

    /** A sum of readings depends on how often a sensor reports, and says nothing about the place. */
    private static Optional<Refused> summed(Frame frame, @Nullable Statistic statistic) {
        return statistic == Statistic.SUM
                ? refused(
                        frame,
                        "adds up readings, which depends on how often they come",
                        "Use mean, minimum or maximum; for amounts make a derived point (total).")
                : Optional.empty();
    }

    private static Optional<Refused> guidance(Panel.Guidance panel) {
        List<String> steps = Objects.requireNonNullElse(panel.steps(), List.of());
        if (panel.frame().selection() == null) {
            return refused(panel.frame(), "names no place", "Choose the place into whose logbook it is written.");
        }
        if (steps.isEmpty() || steps.size() > MOST_STEPS) {
            return refused(panel.frame(), "has no steps, or more than " + MOST_STEPS, "Write a line for each step.");
        }
        try {
            steps.forEach(Text::line);
            return steps.stream().allMatch(step -> !step.isBlank() && step.length() <= LONGEST_STEP)
                    ? Optional.empty()
                    : refused(
                            panel.frame(),
                            "has a step that is empty or too long",
                            "Use 1 to " + LONGEST_STEP + " characters.");
        } catch (IllegalArgumentException e) {
            return refused(panel.frame(), "has a step that cannot be shown: " + e.getMessage(), "Type it anew.");
        }
    }

    private static Optional<Refused> text(Panel.Text panel) {
        String text = Objects.requireNonNullElse(panel.text(), "");
        if (text.length() > LONGEST_TEXT) {
            return refused(
                    panel.frame(), "has more than " + LONGEST_TEXT + " characters of text", "Split it into several.");
        }
        try {
            Text.lines(text);
            return Optional.empty();
        } catch (IllegalArgumentException e) {
            return refused(panel.frame(), "has text that cannot be shown: " + e.getMessage(), "Type it anew.");
        }
    }

    private static Optional<Refused> refused(Frame frame, String what, String todo) {
        return Optional.of(Refused.invalid(
                (frame.title().isBlank() ? "A panel " : "Panel '" + frame.title() + "' ") + what + ".", todo));
    }
}
