package org.openpasture.inlets.modbus;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.RegisterImage;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Target;

/**
 * Asks Modbus devices, each at its own period. Devices behind one connection or serial line are asked one after the other on a thread of the line's, devices with
 * connections of their own side by side. One that does not answer is asked less and less often, down to every eighth round, so that it takes only its share.
 */
public final class ModbusPoller implements MessageInlet {
  private static final int MOST_SKIPPED = 7;
  private final Source.Polled source;
  private final PollSink sink;
  private final Clock clock;
  private final Map<String, Line> lines = new ConcurrentHashMap<>();
  private final Set<String> silent = ConcurrentHashMap.newKeySet();

  /** A poller that asks nobody yet. */
  public ModbusPoller(Source.Polled source, PollSink sink, Clock clock) {
    this.source = source;
    this.sink = sink;
    this.clock = clock;
  }

  @Override
  public String address() {
    return source.address();
  }

  /** Asks these from now on, and nobody else; who was asked before the same way goes on undisturbed. */
  public synchronized void ask(List<Target> targets) {
    Map<String, List<Target>> byLine = targets.stream().collect(Collectors.groupingBy(this::lineOf));
    lines.keySet().stream().filter(key -> !byLine.containsKey(key)).toList().forEach(key -> {
      Line gone = lines.remove(key);
      if (gone != null) {
        gone.close();
      }
    });
    byLine.forEach((key, of) -> lines.computeIfAbsent(key, name -> new Line(name, connection(of.getFirst()))).ask(of));
    silent.retainAll(targets.stream().map(Target::deviceId).toList());
    tell();
  }

  /**
   * Asks a device once, out of turn.
   *
   * @return empty if it is not one of those that are asked
   */
  public Optional<PollSink.Round> askNow(String deviceId) {
    return lines.values().stream().flatMap(line -> line.askNow(deviceId).stream()).findFirst();
  }

  private String lineOf(Target target) {
    return switch (source) {
      case Source.ModbusTcp tcp -> {
        ModbusAddress address = ModbusAddress.of(target.address());
        yield address.host() + ":" + address.port();
      }
      case Source.ModbusRtuOverTcp rtu -> "line";
      case Source.ModbusSerial serial -> "line";
    };
  }

  private Supplier<ModbusLine> connection(Target first) {
    return switch (source) {
      case Source.ModbusTcp tcp -> {
        ModbusAddress address = ModbusAddress.of(first.address());
        yield () -> ModbusLine.tcp(address.host(), address.port(), tcp.timeoutMillis());
      }
      case Source.ModbusRtuOverTcp rtu -> () -> ModbusLine.rtuOverTcp(rtu);
      case Source.ModbusSerial serial -> () -> ModbusLine.serial(serial);
    };
  }

  private int unit(Target target) {
    return source instanceof Source.ModbusTcp ? ModbusAddress.of(target.address()).unit() : ModbusAddress.unit(target.address());
  }

  private void note(String deviceId, boolean answers) {
    if (answers ? silent.remove(deviceId) : silent.add(deviceId)) {
      tell();
    }
  }

  private void tell() {
    int all = lines.values().stream().mapToInt(Line::size).sum();
    int mute = silent.size();
    if (all == 0) {
      sink.condition(org.openpasture.inlets.message.Condition.UP, "No device is asked by it yet.");
    } else if (mute == 0) {
      sink.condition(org.openpasture.inlets.message.Condition.UP, all == 1 ? "Its device answers." : "All " + all + " devices answer.");
    } else {
      sink.condition(mute == all ? org.openpasture.inlets.message.Condition.DOWN : org.openpasture.inlets.message.Condition.DEGRADED,
          all == 1 ? "Its device does not answer." : mute + " of " + all + " devices do not answer.");
    }
  }

  /** When a device is asked next. */
  private static final class Turn {
    private Target target;
    private Instant due;
    private int failures;

    private Turn(Target target, Instant due) {
      this.target = target;
      this.due = due;
    }
  }

  /** A connection with those behind it. */
  private final class Line implements AutoCloseable {
    private final ModbusLine connection;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    /** Held while the connection is used. */
    private final ReentrantLock wire = new ReentrantLock();
    /** Guarded by the lock. */
    private final Map<String, Turn> turns = new HashMap<>();
    private final Thread thread;
    private volatile boolean closed;

    private Line(String name, Supplier<ModbusLine> connection) {
      this.connection = connection.get();
      this.thread = Thread.ofVirtual().name("modbus-" + name).start(this::run);
    }

    private int size() {
      lock.lock();
      try {
        return turns.size();
      } finally {
        lock.unlock();
      }
    }

    private void ask(List<Target> targets) {
      lock.lock();
      try {
        turns.keySet().retainAll(targets.stream().map(Target::deviceId).toList());
        for (Target target : targets) {
          Turn known = turns.get(target.deviceId());
          if (known == null || known.target.everySeconds() != target.everySeconds()) {
            turns.put(target.deviceId(), new Turn(target, clock.instant()));
          } else {
            known.target = target;
          }
        }
        changed.signalAll();
      } finally {
        lock.unlock();
      }
    }

    private void run() {
      while (!closed) {
        try {
          Optional<Turn> next = next();
          if (next.isPresent()) {
            round(next.get());
          }
        } catch (InterruptedException e) {
          return;
        }
      }
    }

    /** Waits until somebody is due; empty when something changed meanwhile. */
    private Optional<Turn> next() throws InterruptedException {
      lock.lock();
      try {
        Optional<Turn> first = turns.values().stream().min(Comparator.comparing(turn -> turn.due));
        long wait = first.map(turn -> Duration.between(clock.instant(), turn.due).toNanos()).orElse(Long.MAX_VALUE);
        if (wait > 0) {
          boolean woken = changed.await(Math.min(wait, TimeUnit.SECONDS.toNanos(10)), TimeUnit.NANOSECONDS);
          return woken || closed ? Optional.empty() : first.filter(turn -> !turn.due.isAfter(clock.instant()));
        }
        return first;
      } finally {
        lock.unlock();
      }
    }

    private void round(Turn turn) {
      Target target = turn.target;
      PollSink.Round round = ask(target, turn.due);
      boolean answers = !round.image().blocks().isEmpty();
      turn.failures = answers ? 0 : turn.failures + 1;
      int skipped = answers ? 0 : Math.min(MOST_SKIPPED, turn.failures - 1);
      lock.lock();
      try {
        turn.due = after(turn.due, target.everySeconds()).plusSeconds((long) skipped * target.everySeconds());
      } finally {
        lock.unlock();
      }
      sink.round(target.deviceId(), round);
      note(target.deviceId(), answers);
    }

    /** The next whole multiple of the period by the clock that has not passed. */
    private Instant after(Instant due, int everySeconds) {
      long now = Math.max(clock.instant().toEpochMilli(), due.toEpochMilli());
      long period = everySeconds * 1_000L;
      return Instant.ofEpochMilli((Math.floorDiv(now, period) + 1) * period);
    }

    private PollSink.Round ask(Target target, Instant due) {
      wire.lock();
      Instant began = clock.instant();
      List<RegisterImage.Block> blocks = new ArrayList<>();
      List<String> problems = new ArrayList<>();
      try {
        for (RegisterLayout.Request request : target.layout().requests()) {
          try {
            blocks.add(new RegisterImage.Block(request.table(), request.from(), connection.read(unit(target), request)));
          } catch (ModbusLine.Refused e) {
            problems.add(String.valueOf(e.getMessage()));
          }
        }
      } catch (ModbusLine.Dead | IllegalArgumentException e) {
        // An address that is none, for instance: registered before the inlet became one for Modbus.
        problems.add(String.valueOf(e.getMessage()));
      } finally {
        wire.unlock();
      }
      Instant ended = clock.instant();
      return new PollSink.Round(new RegisterImage(blocks), String.join("; ", problems), Duration.between(began, ended),
          ended.isAfter(due.plusSeconds(target.everySeconds())));
    }

    private Optional<PollSink.Round> askNow(String deviceId) {
      lock.lock();
      Target target;
      try {
        Turn turn = turns.get(deviceId);
        if (turn == null) {
          return Optional.empty();
        }
        target = turn.target;
      } finally {
        lock.unlock();
      }
      return Optional.of(ask(target, clock.instant()));
    }

    @Override
    public void close() {
      closed = true;
      lock.lock();
      try {
        turns.clear();
        changed.signalAll();
      } finally {
        lock.unlock();
      }
      try {
        thread.join();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      connection.close();
    }
  }

  @Override
  public synchronized void close() {
    lines.values().forEach(Line::close);
    lines.clear();
  }
}
