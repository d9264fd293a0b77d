package org.openpasture.core.commissioning;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;

/**
 * Works out from the frame log how far a device is on its way in, and where it stops the likely cause in words. Pure.
 *
 * @param radio how the device is known on the air
 * @param frames of the device, the newest first
 * @param strangers frames of the last hour that no registered device sent, the newest first
 * @param gateways those of the device's site
 * @param region of the radio network
 * @param subBand that the gateways hear; 0 for all
 */
public record Steps(
        RadioIdentity radio,
        List<Frame> frames,
        List<Frame> strangers,
        List<GatewayState> gateways,
        Region region,
        int subBand) {
    static final String DONE = "done";
    static final String WAITING = "waiting";
    static final String FAILED = "failed";
    static final String LATER = "later";
    /** SNR this near to the floor is as good as out of reach. */
    private static final double THIN_MARGIN_DB = 3;

    private static final int SIMILAR_DIGITS = 2;

    /** A gateway as it is now. */
    public record GatewayState(String name, boolean online, boolean canTransmit) {}

    public List<Step> all() {
        List<Step> steps = new ArrayList<>(List.of(gateway()));
        if (radio instanceof RadioIdentity.OverTheAir) {
            steps.addAll(joining());
        }
        steps.addAll(data());
        return steps;
    }

    static Step step(String id, String title, String state, String words, String todo, @Nullable Instant at) {
        return new Step(id, title, state, words, todo, at);
    }

    private Step gateway() {
        String title = "A gateway is online";
        List<GatewayState> online =
                gateways.stream().filter(GatewayState::online).toList();
        if (gateways.isEmpty()) {
            return step(
                    "gateway",
                    title,
                    FAILED,
                    "No gateway is registered at this site.",
                    "Register one, or admit one that was heard.",
                    null);
        }
        if (online.isEmpty()) {
            return step(
                    "gateway",
                    title,
                    FAILED,
                    gateways.size() == 1
                            ? gateways.getFirst().name() + " is silent."
                            : "All " + gateways.size() + " gateways of this site are silent.",
                    "Look at the gateway first: power, network, and the address and port it sends to.",
                    null);
        }
        String names = String.join(", ", online.stream().map(GatewayState::name).toList());
        if (online.stream().noneMatch(GatewayState::canTransmit) && radio instanceof RadioIdentity.OverTheAir) {
            return step(
                    "gateway",
                    title,
                    FAILED,
                    names + (online.size() == 1 ? " is" : " are") + " online, but did not ask for what is to be sent.",
                    "Its way back is blocked: look at its firewall, and whether it sends PULL_DATA.",
                    null);
        }
        return step("gateway", title, DONE, names, "", null);
    }

    private Optional<Frame> newest(String kind) {
        return frames.stream().filter(frame -> frame.kind().equals(kind)).findFirst();
    }

    private List<Step> joining() {
        Optional<Frame> request = newest(Frame.JOIN_REQUEST);
        boolean hasData = newest(Frame.UPLINK)
                .filter(frame -> frame.counter() >= 0 && frame.outcome() == Frame.Outcome.ACCEPTED)
                .isPresent();
        if (request.isEmpty()) {
            return List.of(
                    notHeard("Its join request is heard"),
                    step("key", "The key is right", LATER, "", "", null),
                    step("answer", "The answer is sent", LATER, "", "", null));
        }
        Frame last = request.get();
        if (last.cause() == Cause.EUIS_SWAPPED) {
            return List.of(
                    step(
                            "heard",
                            "Its join request is heard",
                            FAILED,
                            sentence(String.valueOf(last.reason())),
                            "Swap them in the device, or remove it here and enter them the other way round.",
                            last.receivedAt()),
                    step("key", "The key is right", LATER, "", "", null),
                    step("answer", "The answer is sent", LATER, "", "", null));
        }
        Step heard = step("heard", "Its join request is heard", DONE, reach(last), thinMargin(last), last.receivedAt());
        if (last.outcome() == Frame.Outcome.REFUSED) {
            boolean key = last.cause() == Cause.WRONG_KEY;
            return List.of(
                    heard,
                    step(
                            "key",
                            "The key is right",
                            FAILED,
                            sentence(String.valueOf(last.reason())),
                            key
                                    ? "Compare all 32 digits with the label or the maker's list, and enter the key anew."
                                    : remedy(last),
                            last.receivedAt()),
                    step("answer", "The answer is sent", LATER, "", "", null));
        }
        Step key = step("key", "The key is right", DONE, "The integrity code fits.", "", last.receivedAt());
        Optional<Frame> accept = newest(Frame.JOIN_ACCEPT)
                .filter(frame -> !frame.receivedAt().isBefore(last.receivedAt().minusSeconds(1)));
        if (accept.isEmpty()) {
            return List.of(
                    heard,
                    key,
                    step(
                            "answer",
                            "The answer is sent",
                            hasData ? DONE : WAITING,
                            hasData ? "" : "It is on its way to the gateway.",
                            "",
                            null));
        }
        if (accept.get().outcome() == Frame.Outcome.REFUSED) {
            return List.of(
                    heard,
                    key,
                    step(
                            "answer",
                            "The answer is sent",
                            FAILED,
                            sentence(String.valueOf(accept.get().reason())),
                            remedy(accept.get()),
                            accept.get().receivedAt()));
        }
        return List.of(
                heard,
                key,
                step(
                        "answer",
                        "The answer is sent",
                        DONE,
                        sentence(String.valueOf(accept.get().reason())),
                        "",
                        accept.get().receivedAt()));
    }

    private Step notHeard(String title) {
        Eui64 eui = radio.devEui();
        for (Frame frame : strangers) {
            String other = frame.address();
            if (frame.kind().equals(Frame.JOIN_REQUEST)
                    && radio instanceof RadioIdentity.OverTheAir joins
                    && other.equals(joins.joinEui().toString())) {
                return step(
                        "heard",
                        title,
                        FAILED,
                        "A device with the EUI " + other + " asks to join, which is the JoinEUI entered for this one.",
                        "The two EUIs were swapped: remove the device and enter them the other way round.",
                        frame.receivedAt());
            }
            if (frame.kind().equals(Frame.JOIN_REQUEST)
                    && !other.equals(eui.toString())
                    && differing(other, eui.toString()) <= SIMILAR_DIGITS) {
                return step(
                        "heard",
                        title,
                        FAILED,
                        "A device with the EUI " + other + " asks to join, which differs from this one's " + eui
                                + " in " + differing(other, eui.toString()) + " of 16 digits.",
                        "Compare the EUI with the label: one of them was mistyped.",
                        frame.receivedAt());
            }
        }
        String band = region.isFixed() && subBand > 0 ? region.title() + ", sub-band " + subBand : region.title();
        return step(
                "heard",
                title,
                WAITING,
                "Nothing was heard from " + eui + " yet.",
                "Switch it on, or press its join button. If nothing comes: is it set to " + band
                        + "? Is it in reach of the gateway?",
                null);
    }

    static int differing(String a, String b) {
        int count = Math.abs(a.length() - b.length());
        for (int i = 0; i < Math.min(a.length(), b.length()); i++) {
            count += a.charAt(i) == b.charAt(i) ? 0 : 1;
        }
        return count;
    }

    private static Optional<Reception> best(Frame frame) {
        return frame.receptions().stream().max(Comparator.comparingDouble(Reception::snrDb));
    }

    private String reach(Frame frame) {
        int gatewayCount = frame.receptions().size();
        return best(frame)
                .map(heard -> String.format(
                        java.util.Locale.ROOT,
                        "%.0f dBm, SNR %.1f dB, %s, by %s",
                        heard.rssiDbm(),
                        heard.snrDb(),
                        heard.dataRate(),
                        gatewayCount == 1 ? "one gateway" : gatewayCount + " gateways"))
                .orElse("");
    }

    private String thinMargin(Frame frame) {
        return best(frame)
                .filter(heard -> region.dataRate(heard.dataRate())
                        .map(rate -> rate.marginDb(heard.snrDb()) < THIN_MARGIN_DB)
                        .orElse(false))
                .map(heard -> "It is hardly heard: a better place for the sensor or the gateway is worth while.")
                .orElse("");
    }

    private List<Step> data() {
        boolean joins = radio instanceof RadioIdentity.OverTheAir;
        Optional<Frame> data = frames.stream()
                .filter(frame -> frame.kind().equals(Frame.UPLINK)
                        && frame.counter() >= 0
                        && (frame.outcome() == Frame.Outcome.ACCEPTED || frame.cause() == Cause.NOT_DECODED))
                .findFirst();
        String title = joins ? "The device heard it: first data" : "First data";
        if (data.isEmpty()) {
            return List.of(
                    joins ? awaited(title) : personalised(title),
                    step("decoder", "The decoder fits", LATER, "", "", null));
        }
        Frame last = data.get();
        Step first = step(
                "data",
                title,
                DONE,
                "Frame " + last.counter() + (joins ? "" : ", " + reach(last)),
                thinMargin(last),
                last.receivedAt());
        return List.of(first, decoder(last));
    }

    static Step decoder(Frame last) {
        boolean readable = last.outcome() == Frame.Outcome.ACCEPTED
                && (last.port() == 0 || !last.values().isEmpty());
        return readable
                ? step(
                        "decoder",
                        "The decoder fits",
                        DONE,
                        last.values(),
                        last.reason() == null ? "" : sentence(last.reason()),
                        last.receivedAt())
                : step(
                        "decoder",
                        "The decoder fits",
                        FAILED,
                        last.reason() == null
                                ? "The frame held nothing that the model's layout reads."
                                : sentence(last.reason()),
                        "Choose another model, or change the layout in the workbench on this very frame.",
                        last.receivedAt());
    }

    private Step personalised(String title) {
        Optional<Frame> refused = newest(Frame.UPLINK);
        return refused.map(frame -> step(
                        "data",
                        title,
                        FAILED,
                        sentence(String.valueOf(frame.reason())),
                        remedy(frame),
                        frame.receivedAt()))
                .orElseGet(() -> notHeard(title));
    }

    /** The answer was sent and no data came: if the device asks again, it did not hear it. */
    private Step awaited(String title) {
        Optional<Frame> accept = newest(Frame.JOIN_ACCEPT).filter(frame -> frame.outcome() == Frame.Outcome.ACCEPTED);
        if (accept.isEmpty()) {
            return step("data", title, LATER, "", "", null);
        }
        long requests = frames.stream()
                .filter(frame -> frame.kind().equals(Frame.JOIN_REQUEST) && frame.outcome() == Frame.Outcome.ACCEPTED)
                .count();
        if (requests < 2) {
            return step(
                    "data",
                    title,
                    WAITING,
                    "The answer was sent; its first data is awaited.",
                    "",
                    accept.get().receivedAt());
        }
        Frame request = newest(Frame.JOIN_REQUEST).orElseThrow();
        long hz = best(request).map(Reception::frequencyHz).orElse(0L);
        int heardIn = region.subBandOf(hz);
        if (subBand > 0 && heardIn > 0 && heardIn != subBand) {
            return step(
                    "data",
                    title,
                    FAILED,
                    "It asked " + requests + " times and did not hear the answers. It sends in sub-band " + heardIn
                            + ", the gateways are set to " + subBand + ".",
                    "Set the device to sub-band " + subBand + ", or the radio band in the settings to " + heardIn + ".",
                    request.receivedAt());
        }
        if (region.isFixed() ? heardIn == 0 : region.channel(hz).isEmpty()) {
            return step(
                    "data",
                    title,
                    FAILED,
                    String.format(
                            java.util.Locale.ROOT,
                            "It asked %d times and did not hear the answers. It joins at %.3f MHz, which is no join channel of %s.",
                            requests,
                            hz / 1e6,
                            region.title()),
                    "Set the device to " + region.title() + ", or choose its band in the settings.",
                    request.receivedAt());
        }
        return step(
                "data",
                title,
                FAILED,
                "It asked " + requests + " times and did not hear the answers that were sent.",
                "Likely out of reach of the gateway's transmitter, or the gateway sends at the wrong moment: try beside the gateway; if it works there, it is the reach.",
                request.receivedAt());
    }

    private static String remedy(Frame refused) {
        Cause cause = refused.cause();
        return switch (cause == null ? Cause.NOT_SENT : cause) {
            case NONCE_USED ->
                "Restart the device so that it joins anew; if the nonce repeats again, the device has lost its memory.";
            case REPLAYED, COUNTER_RESET, COUNTER_GAP ->
                "Let it join again; a personalised device needs a new session: remove it and bring it in anew.";
            case IS_PERSONALISED -> "Remove it and bring it in as a device that joins, with its application key.";
            case TOO_LATE -> "Look at the gateway's network: its way to here takes too long.";
            case OTHER_BAND -> "Set device, gateway and the radio band in the settings to the same.";
            case WRONG_KEY -> "Compare all 32 digits with the label or the maker's list, and enter the key anew.";
            case UNREADABLE, UNKNOWN_DEVICE, EUIS_SWAPPED, REPEATED, NOT_DECODED, NOT_SENT -> "See the frame for more.";
        };
    }

    static String sentence(String reason) {
        String text = reason.strip();
        return text.isEmpty()
                ? ""
                : Character.toUpperCase(text.charAt(0)) + text.substring(1) + (text.endsWith(".") ? "" : ".");
    }
}
