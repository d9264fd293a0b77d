package org.openpasture.core.series;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * The bytes of one journal row: everything that one commit made durable, in order.
 *
 * <p>Version 1: {@code 0x01}, then per event a tag byte. Tag 1, arrival: received at (8 bytes, epoch ms), origin (1),
 * count (4), then per reading point (4), time (8, epoch ms), quality (1), value (8, IEEE 754). Tag 2, acknowledgement:
 * at (8), alert id, person's name and note, each as modified UTF-8 with a 2-byte length. Integers are big-endian. Rows
 * are sealed into chunks soon, so they are plain rather than small.
 */
public final class JournalCodec {
  private static final int VERSION = 1;
  private static final int ARRIVAL = 1;
  private static final int ACKNOWLEDGED = 2;

  private JournalCodec() {}

  /** The bytes for events; {@link Event.TimePassed} is not kept, since it follows from the others' times. */
  public static byte[] encode(List<Event> events) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(64 * Math.max(1, events.size()));
    try (DataOutputStream out = new DataOutputStream(bytes)) {
      out.writeByte(VERSION);
      for (Event event : events) {
        switch (event) {
          case Event.ReadingsArrived arrived -> writeArrival(out, arrived.arrival());
          case Event.AlertAcknowledged acknowledged -> {
            out.writeByte(ACKNOWLEDGED);
            out.writeLong(acknowledged.at().toEpochMilli());
            out.writeUTF(acknowledged.alertId());
            out.writeUTF(acknowledged.personName());
            out.writeUTF(acknowledged.note());
          }
          case Event.TimePassed passed -> { }
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  private static void writeArrival(DataOutputStream out, Arrival arrival) throws IOException {
    out.writeByte(ARRIVAL);
    out.writeLong(arrival.receivedAt().toEpochMilli());
    out.writeByte(arrival.origin().ordinal());
    out.writeInt(arrival.readings().size());
    for (PointReading entry : arrival.readings()) {
      out.writeInt(entry.point());
      out.writeLong(entry.reading().time().toEpochMilli());
      out.writeByte(entry.reading().quality().code());
      out.writeDouble(entry.reading().value());
    }
  }

  /**
   * The events of a row.
   *
   * @throws IllegalArgumentException if the bytes are not such a row: the file is damaged
   */
  public static List<Event> decode(byte[] bytes) {
    List<Event> events = new ArrayList<>();
    try (DataInputStream in = new DataInputStream(new ByteArrayInputStream(bytes))) {
      int version = in.readUnsignedByte();
      if (version != VERSION) {
        throw new IllegalArgumentException("journal row of unknown version " + version);
      }
      while (in.available() > 0) {
        int tag = in.readUnsignedByte();
        events.add(switch (tag) {
          case ARRIVAL -> new Event.ReadingsArrived(readArrival(in));
          case ACKNOWLEDGED -> new Event.AlertAcknowledged(Instant.ofEpochMilli(in.readLong()), in.readUTF(), in.readUTF(),
              in.readUTF());
          default -> throw new IllegalArgumentException("journal row with unknown tag " + tag);
        });
      }
    } catch (EOFException e) {
      throw new IllegalArgumentException("journal row is cut off", e);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return events;
  }

  private static Arrival readArrival(DataInputStream in) throws IOException {
    Instant receivedAt = Instant.ofEpochMilli(in.readLong());
    Arrival.Origin origin = Arrival.Origin.ofCode(in.readUnsignedByte());
    int count = in.readInt();
    if (count < 0 || count > in.available() / 21) {
      throw new IllegalArgumentException("journal row claims " + count + " readings, more than it holds");
    }
    List<PointReading> readings = new ArrayList<>(count);
    for (int i = 0; i < count; i++) {
      int point = in.readInt();
      Instant time = Instant.ofEpochMilli(in.readLong());
      Quality quality = Quality.ofCode(in.readUnsignedByte());
      readings.add(new PointReading(point, new Reading(time, in.readDouble(), quality)));
    }
    return new Arrival(receivedAt, origin, readings);
  }
}
