package org.openpasture.core.commissioning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Stranger;

/**
 * The same for a device that speaks by an inlet. Pure.
 *
 * @param address that its messages have to carry
 * @param inletName the inlet's
 * @param inletDown why nothing comes by the inlet; empty if something can
 * @param frames of the device, the newest first
 * @param strangers who was heard at the inlet and is not known
 */
public record InletSteps(
        String address, String inletName, Optional<String> inletDown, List<Frame> frames, List<Stranger> strangers) {
    private static final int SIMILAR_SIGNS = 2;

    public List<Step> all() {
        List<Step> steps = new ArrayList<>();
        steps.add(Steps.step(
                "inlet",
                "Its inlet is open",
                inletDown.isPresent() ? Steps.FAILED : Steps.DONE,
                inletName + inletDown.map(why -> ": " + why).orElse(""),
                inletDown.isPresent() ? "Look at the inlet first." : "",
                null));
        Optional<Frame> newest = frames.stream().filter(Frame::isData).findFirst();
        if (newest.isEmpty()) {
            steps.add(notHeard());
            steps.add(Steps.step("decoder", "The decoder fits", Steps.LATER, "", "", null));
            return steps;
        }
        steps.add(Steps.step(
                "data",
                "First data",
                Steps.DONE,
                frames.size() == 1 ? "one message" : frames.size() + " messages or more",
                "",
                newest.get().receivedAt()));
        steps.add(Steps.decoder(newest.get()));
        return steps;
    }

    private Step notHeard() {
        String title = "First data";
        for (Stranger stranger : strangers) {
            if (Steps.differing(
                            stranger.address().toLowerCase(java.util.Locale.ROOT),
                            address.toLowerCase(java.util.Locale.ROOT))
                    <= SIMILAR_SIGNS) {
                return Steps.step(
                        "data",
                        title,
                        Steps.FAILED,
                        "A device with the address " + stranger.address() + " was heard, which is nearly this one's "
                                + address + ".",
                        "Compare the address with the label: one of them was mistyped.",
                        stranger.lastHeard());
            }
        }
        String others = strangers.isEmpty()
                ? "Nobody unknown was heard at this inlet either."
                : "Unknown addresses heard there: "
                        + String.join(
                                ", ",
                                strangers.stream()
                                        .limit(3)
                                        .map(Stranger::address)
                                        .toList()) + (strangers.size() > 3 ? ", …" : "") + ".";
        return Steps.step(
                "data",
                title,
                Steps.WAITING,
                "Nothing was heard from " + address + " yet. " + others,
                "Switch it on. If nothing comes: does the bridge hear it, and does it send to this inlet?",
                null);
    }
}
