package org.openpasture.inlets.serial;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.message.Backoff;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.Hose;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;

/**
 * A bridge at a serial port. The port comes and goes with its plug: it is looked for again and again, and what is
 * missing is said.
 */
public final class SerialInlet implements MessageInlet {
    private static final int READ_WAIT_MILLIS = 500;
    private static final int PAUSES_UNTIL_OVER = 4;
    private static final int CHUNK = 4_096;
    private final SerialLine line;
    private final Framing framing;
    private final MessageSink sink;
    private final Backoff backoff = new Backoff();
    private final Loop reader;
    private volatile boolean closed;

    /** Starts to look for the port. */
    public SerialInlet(SerialLine line, Framing framing, MessageSink sink) {
        this.line = line;
        this.framing = framing;
        this.sink = sink;
        // A platform thread: the library waits in native code.
        sink.condition(Condition.CONNECTING, "Looks for " + line.device() + ".");
        this.reader = Loop.onPlatformThread("serial-inlet", this::turn, problem -> {
                    if (!problem.isEmpty()) {
                        sink.condition(Condition.DOWN, line.device() + ": " + problem + ". It is opened again.");
                    }
                })
                .start();
    }

    @Override
    public String address() {
        return line.address();
    }

    private void turn() throws InterruptedException {
        SerialPort port = open();
        if (port != null) {
            backoff.reset();
            sink.condition(Condition.UP, line.device() + " is open.");
            try {
                read(port);
            } finally {
                port.closePort();
            }
            if (!closed) {
                sink.condition(
                        Condition.DOWN, line.device() + " is gone: was its plug pulled? It is looked for again.");
            }
        }
        if (!closed) {
            Thread.sleep(backoff.next());
        }
    }

    private @Nullable SerialPort open() {
        if (isUnplugged()) {
            sink.condition(Condition.DOWN, "There is no " + line.device() + ": is the bridge plugged in?");
            return null;
        }
        try {
            SerialPort port = SerialPort.getCommPort(line.device());
            SerialSettings settings = SerialSettings.of(line);
            port.setComPortParameters(line.baud(), settings.dataBits(), settings.stopBits(), settings.parity());
            port.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, READ_WAIT_MILLIS, 0);
            if (port.openPort(0)) {
                return port;
            }
            sink.condition(
                    Condition.DOWN,
                    line.device()
                            + " cannot be opened: another program holds it, or the service may not use it (group dialout).");
        } catch (SerialPortInvalidPortException e) {
            sink.condition(Condition.DOWN, line.device() + " is no serial port.");
        }
        return null;
    }

    /** Where ports are files, one that is gone is seen at once. */
    private boolean isUnplugged() {
        return line.device().startsWith("/") && !Files.exists(Path.of(line.device()));
    }

    private void read(SerialPort port) throws InterruptedException {
        Hose hose = new Hose(framing, sink, line.device());
        byte[] chunk = new byte[CHUNK];
        int pauses = 0;
        while (!closed) {
            int count = port.readBytes(chunk, chunk.length);
            if (count < 0) {
                return;
            }
            if (count == 0) {
                if (!port.isOpen() || isUnplugged()) {
                    return;
                }
                pauses++;
                if (pauses == PAUSES_UNTIL_OVER) {
                    hose.pause();
                }
                continue;
            }
            pauses = 0;
            hose.feed(Arrays.copyOf(chunk, count));
        }
    }

    @Override
    public void close() {
        closed = true;
        reader.close();
    }
}
