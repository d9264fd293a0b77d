package org.openpasture.inlets.modbus;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.Closeable;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.time.Duration;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.inlets.serial.SerialSettings;

/** The bytes of an RTU line, for what the Modbus library does not know. One thread at a time. */
interface RtuWire extends Closeable {
    /** Sends. */
    void write(byte[] bytes) throws IOException;

    /** The next byte, 0 to 255; -1 if none comes in time. */
    int read(Duration within) throws IOException;

    /** A line behind a serial server. */
    static RtuWire tcp(String host, int port, Duration connectWithin) throws IOException {
        Socket socket = new Socket();
        try {
            socket.connect(new InetSocketAddress(host, port), (int) connectWithin.toMillis());
        } catch (IOException e) {
            socket.close();
            throw e;
        }
        return new RtuWire() {
            @Override
            public void write(byte[] bytes) throws IOException {
                socket.getOutputStream().write(bytes);
            }

            @Override
            public int read(Duration within) throws IOException {
                socket.setSoTimeout((int) Math.max(1, within.toMillis()));
                try {
                    int next = socket.getInputStream().read();
                    if (next < 0) {
                        throw new IOException("the connection was closed");
                    }
                    return next;
                } catch (SocketTimeoutException e) {
                    return -1;
                }
            }

            @Override
            public void close() throws IOException {
                socket.close();
            }
        };
    }

    /** A serial port of this machine. */
    static RtuWire serial(SerialLine line) throws IOException {
        SerialPort port;
        try {
            port = SerialPort.getCommPort(line.device());
        } catch (SerialPortInvalidPortException e) {
            throw new IOException(line.device() + " is no serial port", e);
        }
        SerialSettings settings = SerialSettings.of(line);
        port.setComPortParameters(line.baud(), settings.dataBits(), settings.stopBits(), settings.parity());
        if (!port.openPort(0)) {
            throw new IOException(line.device() + " cannot be opened");
        }
        return new RtuWire() {
            @Override
            public void write(byte[] bytes) throws IOException {
                if (port.writeBytes(bytes, bytes.length) != bytes.length) {
                    throw new IOException(line.device() + " takes nothing");
                }
            }

            @Override
            public int read(Duration within) {
                port.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, (int) Math.max(1, within.toMillis()), 0);
                byte[] one = new byte[1];
                return port.readBytes(one, 1) == 1 ? one[0] & 0xFF : -1;
            }

            @Override
            public void close() {
                port.closePort();
            }
        };
    }
}
