package org.openpasture.inlets.modbus;

import com.digitalpetri.modbus.client.ModbusClient;
import com.digitalpetri.modbus.client.ModbusRtuClient;
import com.digitalpetri.modbus.client.ModbusTcpClient;
import com.digitalpetri.modbus.exceptions.ModbusException;
import com.digitalpetri.modbus.exceptions.ModbusResponseException;
import com.digitalpetri.modbus.exceptions.ModbusTimeoutException;
import com.digitalpetri.modbus.pdu.MaskWriteRegisterRequest;
import com.digitalpetri.modbus.pdu.ReadCoilsRequest;
import com.digitalpetri.modbus.pdu.ReadDiscreteInputsRequest;
import com.digitalpetri.modbus.pdu.ReadHoldingRegistersRequest;
import com.digitalpetri.modbus.pdu.ReadInputRegistersRequest;
import com.digitalpetri.modbus.pdu.ReadWriteMultipleRegistersRequest;
import com.digitalpetri.modbus.pdu.WriteMultipleCoilsRequest;
import com.digitalpetri.modbus.pdu.WriteMultipleRegistersRequest;
import com.digitalpetri.modbus.pdu.WriteSingleCoilRequest;
import com.digitalpetri.modbus.pdu.WriteSingleRegisterRequest;
import com.digitalpetri.modbus.serial.client.SerialPortClientTransport;
import com.digitalpetri.modbus.tcp.client.NettyRtuClientTransport;
import com.digitalpetri.modbus.tcp.client.NettyTcpClientTransport;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.core.layout.RegisterTable;
import org.openpasture.inlets.message.Causes;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.inlets.serial.SerialSettings;

/**
 * One connection or serial line to Modbus devices. One thread at a time; connects when it is used and is not connected.
 */
final class ModbusLine implements AutoCloseable {
    private static final Duration CONNECT_WITHIN = Duration.ofSeconds(3);
    private static final int USUAL_TIMEOUT_MILLIS = 1_000;
    private static final int ILLEGAL_FUNCTION = 1;
    private final ModbusClient client;
    private final Duration timeout;
    private final String where;
    private final Check check;
    private final Optional<Opener> rtu;

    /** Whether it may be connected to; asked before each time. */
    private interface Check {
        void pass() throws IOException;
    }

    /** Opens the line itself, where it is one of RTU. */
    private interface Opener {
        RtuWire open() throws IOException;
    }

    private ModbusLine(ModbusClient client, Duration timeout, String where, Check check, Optional<Opener> rtu) {
        this.check = check;
        this.rtu = rtu;
        this.client = client;
        this.timeout = timeout;
        this.where = where;
    }

    private static Duration timeout(@Nullable Integer millis) {
        return Duration.ofMillis(millis == null ? USUAL_TIMEOUT_MILLIS : millis);
    }

    static ModbusLine tcp(String host, int port, @Nullable Integer timeoutMillis, Reach reach) {
        Duration timeout = timeout(timeoutMillis);
        var transport = NettyTcpClientTransport.create(config -> config.setHostname(host)
                .setPort(port)
                .setConnectTimeout(CONNECT_WITHIN)
                .setConnectPersistent(false));
        return new ModbusLine(
                ModbusTcpClient.create(new UnitCheck(transport), config -> config.setRequestTimeout(timeout)),
                timeout,
                host + ":" + port,
                () -> reach.check(host),
                Optional.empty());
    }

    static ModbusLine rtuOverTcp(Source.ModbusRtuOverTcp source, Reach reach) {
        Duration timeout = timeout(source.timeoutMillis());
        var transport = NettyRtuClientTransport.create(config -> config.setHostname(source.host())
                .setPort(source.port())
                .setConnectTimeout(CONNECT_WITHIN)
                .setConnectPersistent(false));
        return new ModbusLine(
                ModbusRtuClient.create(transport, config -> config.setRequestTimeout(timeout)),
                timeout,
                source.host() + ":" + source.port(),
                () -> reach.check(source.host()),
                Optional.of(() -> RtuWire.tcp(source.host(), source.port(), CONNECT_WITHIN)));
    }

    static ModbusLine serial(Source.ModbusSerial source) {
        Duration timeout = timeout(source.timeoutMillis());
        SerialLine line = source.line();
        SerialSettings settings = SerialSettings.of(line);
        var transport = SerialPortClientTransport.create(config -> config.setSerialPort(line.device())
                .setBaudRate(line.baud())
                .setDataBits(settings.dataBits())
                .setStopBits(settings.stopBits())
                .setParity(settings.parity()));
        return new ModbusLine(
                ModbusRtuClient.create(transport, config -> config.setRequestTimeout(timeout)),
                timeout,
                line.device(),
                () -> {},
                Optional.of(() -> RtuWire.serial(line)));
    }

    /** The line cannot be had, or the device does not answer: the round is over. */
    static final class Dead extends IOException {
        private static final long serialVersionUID = 1L;

        Dead(String message, Throwable cause) {
            super(message, cause);
        }
    }

    /** The device answered, but not with what was asked for. */
    static final class Refused extends IOException {
        private static final long serialVersionUID = 1L;

        Refused(String message) {
            super(message);
        }
    }

    private Dead dead(ModbusException error) {
        if (error instanceof ModbusTimeoutException) {
            String other = client.getTransport() instanceof UnitCheck check
                            && check.stray().isPresent()
                    ? ", but one of unit " + check.stray().getAsInt()
                    : "";
            return new Dead("no answer within " + timeout.toMillis() + " ms" + other, error);
        }
        String what = client.isConnected() ? "its answer cannot be read" : "the connection broke";
        disconnect();
        return new Dead(Causes.innermost(error).getMessage() == null ? what : what + ": " + innermost(error), error);
    }

    void connect() throws Dead {
        if (client.isConnected()) {
            return;
        }
        try {
            check.pass();
            client.connect();
        } catch (IOException e) {
            throw new Dead(String.valueOf(e.getMessage()), e);
        } catch (ModbusException e) {
            throw new Dead(where + " cannot be reached: " + innermost(e), e);
        }
    }

    private static String innermost(Throwable error) {
        return String.valueOf(Causes.innermost(error).getMessage())
                .replaceFirst("^(Connection refused).*", "it refuses the connection");
    }

    /** Reads bits or registers: a byte for each bit, two for each register. */
    byte[] read(int unit, RegisterLayout.Request request) throws Dead, Refused {
        connect();
        int from = request.from();
        int count = request.count();
        try {
            byte[] data =
                    switch (request.table()) {
                        case COIL ->
                            bits(
                                    client.readCoils(unit, new ReadCoilsRequest(from, count))
                                            .coils(),
                                    count);
                        case DISCRETE ->
                            bits(
                                    client.readDiscreteInputs(unit, new ReadDiscreteInputsRequest(from, count))
                                            .inputs(),
                                    count);
                        case HOLDING ->
                            client.readHoldingRegisters(unit, new ReadHoldingRegistersRequest(from, count))
                                    .registers();
                        case INPUT ->
                            client.readInputRegisters(unit, new ReadInputRegistersRequest(from, count))
                                    .registers();
                    };
            int expected = request.table().isBits() ? count : 2 * count;
            if (data.length != expected) {
                throw new Refused("it answered with " + data.length + " bytes instead of " + expected);
            }
            return data;
        } catch (ModbusResponseException e) {
            throw new Refused(inWords(e.getExceptionCode(), "read", request.table(), from, count));
        } catch (ModbusException e) {
            throw dead(e);
        }
    }

    /** One function by which something can be written. */
    private interface Way {
        void go() throws ModbusException;
    }

    /** Writes; where a device does not know one function for it, by the next that does the same. */
    void write(int unit, RegisterLayout.Write write) throws Dead, Refused {
        connect();
        List<Way> ways =
                switch (write) {
                    case RegisterLayout.Write.All(RegisterTable table, int at, byte[] data)
                    when table == RegisterTable.COIL -> coil(unit, at, data[0] != 0);
                    case RegisterLayout.Write.All(RegisterTable table, int at, byte[] data)
                    when table == RegisterTable.HOLDING -> registers(unit, at, data);
                    case RegisterLayout.Write.All(RegisterTable table, int at, byte[] data) ->
                        throw new IllegalArgumentException(table.id() + " cannot be written");
                    case RegisterLayout.Write.Part(int at, int keep, int set) ->
                        List.of(() -> client.maskWriteRegister(unit, new MaskWriteRegisterRequest(at, keep, set)));
                };
        try {
            if (!oneOf(ways)) {
                if (!(write instanceof RegisterLayout.Write.Part part)) {
                    throw new Refused("it does not know how to write "
                            + write.table().id() + (write.table().isBits() ? " bits" : " registers"));
                }
                // Not in one step: what the device changes in the register in between is lost.
                byte[] now = client.readHoldingRegisters(unit, new ReadHoldingRegistersRequest(part.at(), 1))
                        .registers();
                write(unit, part.of(Bytes.big(now, 0, 2)));
            }
        } catch (ModbusResponseException e) {
            int count = write instanceof RegisterLayout.Write.All all
                            && !all.table().isBits()
                    ? all.data().length / 2
                    : 1;
            throw new Refused(inWords(e.getExceptionCode(), "write", write.table(), write.at(), count));
        } catch (ModbusException e) {
            throw dead(e);
        }
    }

    /** Whether the device knows one of these. */
    private static boolean oneOf(List<Way> ways) throws ModbusException {
        for (Way way : ways) {
            try {
                way.go();
                return true;
            } catch (ModbusResponseException e) {
                if (e.getExceptionCode() != ILLEGAL_FUNCTION) {
                    throw e;
                }
            }
        }
        return false;
    }

    /** Functions 5 and 15. */
    private List<Way> coil(int unit, int at, boolean on) {
        return List.of(
                () -> client.writeSingleCoil(unit, new WriteSingleCoilRequest(at, on)),
                () -> client.writeMultipleCoils(
                        unit, new WriteMultipleCoilsRequest(at, 1, new byte[] {(byte) (on ? 1 : 0)})));
    }

    /** Functions 6 (for one register), 16 and 23. */
    private List<Way> registers(int unit, int at, byte[] data) {
        int count = data.length / 2;
        List<Way> ways = new ArrayList<>();
        if (count == 1) {
            ways.add(() -> client.writeSingleRegister(unit, new WriteSingleRegisterRequest(at, Bytes.big(data, 0, 2))));
        }
        ways.add(() -> client.writeMultipleRegisters(unit, new WriteMultipleRegistersRequest(at, count, data)));
        ways.add(() -> client.readWriteMultipleRegisters(
                unit, new ReadWriteMultipleRegistersRequest(at, count, at, count, data)));
        return ways;
    }

    /**
     * Who a device says that it is (function 43/14).
     *
     * @return empty if it says nothing of itself
     */
    Optional<String> identity(int unit) throws Dead {
        try {
            Optional<byte[]> answer = client instanceof ModbusTcpClient tcp
                    ? Optional.of(identityByTcp(tcp, unit))
                    : rtu.isPresent() ? identityByRtu(rtu.get(), unit) : Optional.empty();
            return answer.flatMap(Identification::inWords);
        } catch (ModbusResponseException | IllegalArgumentException e) {
            return Optional.empty();
        } catch (ModbusException e) {
            throw dead(e);
        }
    }

    private byte[] identityByTcp(ModbusTcpClient tcp, int unit) throws Dead, ModbusException {
        connect();
        return tcp.sendRaw(unit, Identification.request());
    }

    /** The line is taken from the library for a moment; what it is asked next connects again. */
    private Optional<byte[]> identityByRtu(Opener opener, int unit) throws Dead {
        disconnect();
        try {
            check.pass();
            try (RtuWire wire = opener.open()) {
                return RtuExchange.ask(wire, unit, Identification.request(), timeout);
            }
        } catch (IOException e) {
            throw new Dead(String.valueOf(e.getMessage()), e);
        }
    }

    private static byte[] bits(byte[] packed, int count) {
        byte[] bits = new byte[Math.min(count, packed.length * 8)];
        for (int i = 0; i < bits.length; i++) {
            bits[i] = (byte) (packed[i / 8] >> i % 8 & 1);
        }
        return bits;
    }

    /** Exception codes of the application protocol 1.1b3, 7. */
    private static String inWords(int code, String verb, RegisterTable table, int from, int count) {
        String what = table.id() + " " + from + (count > 1 ? " to " + (from + count - 1) : "");
        return switch (code) {
            case 1 -> "it does not know how to " + verb + " " + table.id() + (table.isBits() ? " bits" : " registers");
            case 2 -> "it has no " + what;
            case 3 -> "it does not take the request to " + verb + " " + what;
            case 4 -> "it failed to " + verb + " " + what;
            case 5, 6 -> "it is busy";
            case 10 -> "its gateway has no way to it";
            case 11 -> "its gateway got no answer from it";
            default -> "it refused " + what + " with code " + code;
        };
    }

    void disconnect() {
        try {
            client.disconnect();
        } catch (ModbusException e) {
            // It was not connected, which is what was wanted.
        }
    }

    @Override
    public void close() {
        disconnect();
    }
}
