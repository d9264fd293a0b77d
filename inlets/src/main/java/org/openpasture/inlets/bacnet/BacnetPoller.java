package org.openpasture.inlets.bacnet;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bacnet.Controller;
import org.openpasture.core.bacnet.CovNotification;
import org.openpasture.core.bacnet.Datum;
import org.openpasture.core.bacnet.IAm;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.bacnet.Property;
import org.openpasture.core.bacnet.ReadProperties;
import org.openpasture.core.bacnet.SubscribeCov;
import org.openpasture.core.bacnet.TrendLog;
import org.openpasture.core.bacnet.WhoIs;
import org.openpasture.core.bacnet.WriteProperty;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.ObjectField;
import org.openpasture.core.layout.ObjectImage;
import org.openpasture.core.layout.ObjectLayout;
import org.openpasture.inlets.poll.Attendance;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Poller;
import org.openpasture.inlets.poll.Rota;
import org.openpasture.inlets.poll.Target;
import org.openpasture.inlets.reach.Reach;

/**
 * Building controllers by BACnet/IP: found by asking around, read side by side, listened to where they tell of changes,
 * and asked for what they logged while they could not be reached.
 */
public final class BacnetPoller implements Poller {
    private static final int USUAL_TIMEOUT_MILLIS = 1_000;
    private static final int PROCESS = 1;
    private static final Duration SUBSCRIBED_FOR = Duration.ofMinutes(10);
    private static final Duration LONGEST_GAP = Duration.ofDays(31);
    private static final int ENTRIES_AT_ONCE = 40;
    private static final int KEPT_AT_ONCE = 500;
    private static final int MOST_UNKEPT = 1_000;
    private static final int DESCRIBED_AT_ONCE = 4;
    private static final int MOST_STATIONS = 5_000;
    private static final int FAULT = 1;
    private final Source.BacnetIp source;
    private final Reach reach;
    private final PollSink sink;
    private final Supplier<ZoneId> zone;
    private final Clock clock;
    private final BacnetPort port;
    private final ControllerReader reader;
    private final Attendance attendance;
    /** By device instance. */
    private final Map<Integer, BacnetPort.Station> stations = new ConcurrentHashMap<>();

    private final Map<Integer, CompletableFuture<BacnetPort.Station>> sought = new ConcurrentHashMap<>();
    private final Set<Integer> described = ConcurrentHashMap.newKeySet();
    private final Semaphore describing = new Semaphore(DESCRIBED_AT_ONCE);
    private final Semaphore room = new Semaphore(MOST_UNKEPT);
    /** By address. */
    private final Map<String, Line> lines = new ConcurrentHashMap<>();

    private record Line(ControllerWire objects, Rota rota) {}

    /**
     * Opens the port, asks who is there, and reads nobody yet.
     *
     * @param zone of the controllers' clocks
     */
    public BacnetPoller(Source.BacnetIp source, Reach reach, PollSink sink, Supplier<ZoneId> zone, Clock clock)
            throws IOException {
        this.source = source;
        this.reach = reach;
        this.sink = sink;
        this.zone = zone;
        this.clock = clock;
        this.attendance = new Attendance(sink);
        int millis = source.timeoutMillis() == null ? USUAL_TIMEOUT_MILLIS : source.timeoutMillis();
        this.port = new BacnetPort(
                source.bind(),
                source.port() == null ? Source.BacnetIp.USUAL_PORT : source.port(),
                Duration.ofMillis(millis),
                new Ear());
        this.reader = new ControllerReader(port);
        askAround(WhoIs.anybody());
    }

    @Override
    public String address() {
        return "BACnet/IP, UDP port " + port.port() + ", looks at " + String.join(", ", source.lookAt());
    }

    private void askAround(WhoIs whom) {
        for (String place : source.lookAt()) {
            try {
                port.whoIs(whom, reached(place));
            } catch (IOException | IllegalArgumentException e) {
                sink.lost(place, "nobody can be asked there: " + e.getMessage());
            }
        }
    }

    private InetSocketAddress reached(String place) throws IOException {
        InetSocketAddress there = BacnetAddress.socket(place);
        reach.check(there.getHostString());
        return there;
    }

    /** Asks who is there, and waits until whoever answers has described himself. */
    public void look() throws InterruptedException {
        described.clear();
        askAround(WhoIs.anybody());
        Thread.sleep(port.timeout());
        describing.acquire(DESCRIBED_AT_ONCE);
        describing.release(DESCRIBED_AT_ONCE);
    }

    @Override
    public synchronized void ask(List<Target> targets) {
        attendance.of(targets.stream().map(Target::deviceId).toList());
        Map<String, List<Target>> byAddress = targets.stream().collect(Collectors.groupingBy(Target::address));
        lines.keySet().stream()
                .filter(address -> !byAddress.containsKey(address))
                .toList()
                .forEach(address -> {
                    Line gone = lines.remove(address);
                    if (gone != null) {
                        gone.rota().close();
                    }
                });
        byAddress.forEach((address, of) -> {
            Line line = lines.computeIfAbsent(address, key -> {
                ControllerWire objects = new ControllerWire(BacnetAddress.of(key));
                return new Line(objects, new Rota("bacnet-" + key, objects, sink, clock));
            });
            line.objects().targets = List.copyOf(of);
            line.rota().ask(of);
        });
    }

    @Override
    public Optional<PollSink.Round> askNow(Target target) {
        return Optional.ofNullable(lines.get(target.address()))
                .map(line -> line.rota().askNow(target));
    }

    @Override
    public void set(Target target, String channel, double value) throws SetFailed {
        if (!(target.layout() instanceof ObjectLayout layout)) {
            throw new IllegalArgumentException("its model has no list of objects");
        }
        WriteProperty write = layout.write(channel, value);
        try {
            port.ask(station(BacnetAddress.of(target.address())), write::apdu);
        } catch (BacnetPort.NoAnswer e) {
            throw new SetFailed(String.valueOf(e.getMessage()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new SetFailed("it was interrupted");
        }
    }

    /** Where a controller is; asks around for it if that is not known. */
    private BacnetPort.Station station(BacnetAddress address) throws BacnetPort.NoAnswer, InterruptedException {
        if (address.place().isPresent()) {
            try {
                return new BacnetPort.Station(reached(address.place().get()), Optional.empty());
            } catch (IOException e) {
                throw new BacnetPort.NoAnswer(String.valueOf(e.getMessage()), false);
            }
        }
        BacnetPort.Station known = stations.get(address.device());
        if (known != null) {
            return known;
        }
        CompletableFuture<BacnetPort.Station> answer =
                sought.computeIfAbsent(address.device(), device -> new CompletableFuture<>());
        try {
            askAround(WhoIs.device(address.device()));
            return answer.get(port.timeout().toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException | ExecutionException e) {
            throw new BacnetPort.NoAnswer(
                    "no device " + address.device() + " answers when it is asked who is there", false);
        } finally {
            sought.remove(address.device(), answer);
        }
    }

    /** What controllers say by themselves. */
    private final class Ear implements BacnetPort.Listener {
        @Override
        public void iAm(IAm who, BacnetPort.Station station) {
            if (stations.size() >= MOST_STATIONS && !stations.containsKey(who.device())) {
                sink.lost(
                        station.address().getHostString(),
                        "more than " + MOST_STATIONS + " devices say that they are there");
                return;
            }
            stations.put(who.device(), station);
            Optional.ofNullable(sought.get(who.device())).ifPresent(waiting -> waiting.complete(station));
            if (!sink.isKnown(Integer.toString(who.device())) && described.add(who.device())) {
                Thread.ofVirtual().name("bacnet-describe").start(() -> describe(who.device(), station));
            }
        }

        @Override
        public void changed(CovNotification what) {
            lines.values().stream()
                    .filter(line -> line.objects().address.device() == what.device())
                    .forEach(line -> line.objects().changed(what));
        }

        @Override
        public void malformed(String sender, String reason) {
            sink.lost(sender, reason);
        }
    }

    private void describe(int device, BacnetPort.Station station) {
        try {
            describing.acquire();
            try {
                sink.found(
                        Integer.toString(device),
                        reader.describe(station, device).toBytes());
            } catch (BacnetPort.NoAnswer | IllegalArgumentException e) {
                sink.found(Integer.toString(device), new Controller(device, "", "", "", List.of()).toBytes());
                sink.lost(Integer.toString(device), "it does not describe itself: " + e.getMessage());
            } finally {
                describing.release();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException e) {
            // What it said could not be kept; it says again that it is there.
            described.remove(device);
        }
    }

    /** The objects of one controller. */
    private final class ControllerWire implements Rota.Wire {
        private final BacnetAddress address;
        private volatile List<Target> targets = List.of();
        /** Groups that were read since it was silent, and when it was heard before that. */
        private final Set<String> caughtUp = ConcurrentHashMap.newKeySet();

        private Optional<Instant> heardBefore = Optional.empty();
        private @Nullable Instant subscribedUntil;

        private ControllerWire(BacnetAddress address) {
            this.address = address;
        }

        @Override
        public PollSink.Answer ask(Target target) throws InterruptedException {
            List<ObjectField> fields = target.layout() instanceof ObjectLayout(List<ObjectField> all) ? all : List.of();
            List<ReadProperties.Wanted> wanted = fields.stream()
                    .map(ObjectField::object)
                    .distinct()
                    .flatMap(object -> List.of(Property.PRESENT_VALUE, Property.STATUS_FLAGS).stream()
                            .map(property -> new ReadProperties.Wanted(object, property)))
                    .toList();
            try {
                List<String> problems = new ArrayList<>();
                Map<ObjectId, Double> values = values(reader.read(station(address), wanted), problems);
                return new PollSink.Answer(
                        new ObjectImage(values).toBytes(), !values.isEmpty(), String.join("; ", problems));
            } catch (BacnetPort.NoAnswer e) {
                if (!e.refused) {
                    // It may be somewhere else by now, and has forgotten whom it wanted to tell.
                    stations.remove(address.device());
                    caughtUp.clear();
                    subscribedUntil = null;
                }
                return new PollSink.Answer(new ObjectImage(Map.of()).toBytes(), false, String.valueOf(e.getMessage()));
            }
        }

        /** A value whose object says that it has a fault is none. */
        private Map<ObjectId, Double> values(List<ReadProperties.Found> found, List<String> problems) {
            Set<ObjectId> faulty = found.stream()
                    .filter(one -> one.property() == Property.STATUS_FLAGS
                            && !one.data().isEmpty()
                            && one.data().getFirst() instanceof Datum.Bits bits
                            && bits.has(FAULT))
                    .map(ReadProperties.Found::object)
                    .collect(Collectors.toSet());
            faulty.forEach(object -> problems.add(object + " says that it has a fault"));
            Map<ObjectId, Double> values = new LinkedHashMap<>();
            for (ReadProperties.Found one : found) {
                if (one.property() == Property.PRESENT_VALUE && !faulty.contains(one.object())) {
                    one.number()
                            .filter(Double::isFinite)
                            .ifPresentOrElse(
                                    number -> values.put(one.object(), number),
                                    () -> problems.add(one.object() + ": "
                                            + (one.problem() == null ? "its value is no number" : one.problem())));
                }
            }
            return values;
        }

        @Override
        public void asked(Target target, PollSink.Answer answer) throws InterruptedException {
            attendance.note(target.deviceId(), answer.something());
            if (answer.something() && target.layout() instanceof ObjectLayout layout) {
                if (caughtUp.isEmpty()) {
                    heardBefore = sink.lastHeard(target.deviceId());
                }
                if (caughtUp.add(target.key())) {
                    catchUp(target, layout);
                }
                subscribe(target, layout);
            }
        }

        private void subscribe(Target target, ObjectLayout layout) throws InterruptedException {
            Instant now = clock.instant();
            Instant until = subscribedUntil;
            Duration lifetime = Duration.ofSeconds(Math.max(SUBSCRIBED_FOR.toSeconds(), 3L * target.everySeconds()));
            if (until != null && until.isAfter(now.plus(lifetime.dividedBy(2)))) {
                return;
            }
            subscribedUntil = now.plus(lifetime);
            for (ObjectField field :
                    layout.fields().stream().filter(ObjectField::isTold).toList()) {
                try {
                    port.ask(
                            station(address),
                            new SubscribeCov(PROCESS, field.object(), (int) lifetime.toSeconds())::apdu);
                } catch (BacnetPort.NoAnswer e) {
                    sink.lost(
                            address.device() + " " + field.object(), "it does not tell of changes: " + e.getMessage());
                }
            }
        }

        private void changed(CovNotification what) {
            List<Target> concerned = targets.stream()
                    .filter(target -> target.layout() instanceof ObjectLayout(List<ObjectField> fields)
                            && fields.stream().anyMatch(field -> field.object().equals(what.object())))
                    .toList();
            Map<ObjectId, Double> values = values(what.values(), new ArrayList<>());
            if (concerned.isEmpty() || values.isEmpty()) {
                return;
            }
            if (!room.tryAcquire()) {
                sink.lost(Integer.toString(address.device()), "it tells of more changes than can be kept");
                return;
            }
            sink.told(concerned.getFirst().deviceId(), new ObjectImage(values).toBytes())
                    .whenComplete((kept, error) -> room.release());
        }

        /** Fills the gap since it was last heard from what it logged meanwhile. */
        private void catchUp(Target target, ObjectLayout layout) throws InterruptedException {
            Instant now = clock.instant();
            Optional<Instant> last = heardBefore;
            // What it logged before it was brought in belongs to no point of ours.
            if (last.isEmpty() || last.get().isAfter(now.minusSeconds(2L * target.everySeconds()))) {
                return;
            }
            Instant oldest = now.minus(LONGEST_GAP);
            Instant since = last.get().isBefore(oldest) ? oldest : last.get();
            TreeMap<Instant, Map<ObjectId, Double>> logged = new TreeMap<>();
            for (ObjectField field : layout.fields()) {
                ObjectId log = field.log();
                if (log != null) {
                    try {
                        read(log, since, now).forEach(entry -> logged.computeIfAbsent(
                                        entry.time().atZone(zone.get()).toInstant(), time -> new LinkedHashMap<>())
                                .put(field.object(), entry.value()));
                    } catch (BacnetPort.NoAnswer | IllegalArgumentException e) {
                        sink.lost(address.device() + " " + log, "its log cannot be read: " + e.getMessage());
                    }
                }
            }
            List<PollSink.Logged> entries = logged.entrySet().stream()
                    .map(entry -> new PollSink.Logged(entry.getKey(), new ObjectImage(entry.getValue()).toBytes()))
                    .toList();
            for (int from = 0; from < entries.size(); from += KEPT_AT_ONCE) {
                sink.logged(target.deviceId(), entries.subList(from, Math.min(entries.size(), from + KEPT_AT_ONCE)));
            }
        }

        private List<TrendLog.Entry> read(ObjectId log, Instant since, Instant until)
                throws BacnetPort.NoAnswer, InterruptedException {
            List<TrendLog.Entry> entries = new ArrayList<>();
            // Times are told to the hundredth of a second; the entry at which we left off must not come again for ever.
            LocalDateTime from = LocalDateTime.ofInstant(since, zone.get());
            LocalDateTime end = LocalDateTime.ofInstant(until, zone.get());
            while (from.isBefore(end)) {
                LocalDateTime after = from;
                TrendLog.Piece piece = TrendLog.answer(
                        port.ask(station(address), id -> TrendLog.after(id, log, after, ENTRIES_AT_ONCE)));
                piece.entries().stream()
                        .filter(entry ->
                                entry.time().isAfter(after) && entry.time().isBefore(end))
                        .forEach(entries::add);
                Optional<LocalDateTime> last = piece.last();
                if (last.isEmpty() || !last.get().isAfter(from)) {
                    break;
                }
                from = last.get();
            }
            return entries;
        }

        @Override
        public void close() {
            caughtUp.clear();
        }
    }

    @Override
    public synchronized void close() {
        lines.values().forEach(line -> line.rota().close());
        lines.clear();
        port.close();
    }
}
