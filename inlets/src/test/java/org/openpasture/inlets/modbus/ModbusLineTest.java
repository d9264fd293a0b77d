package org.openpasture.inlets.modbus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.digitalpetri.modbus.pdu.MaskWriteRegisterRequest;
import com.digitalpetri.modbus.pdu.MaskWriteRegisterResponse;
import com.digitalpetri.modbus.pdu.ReadHoldingRegistersRequest;
import com.digitalpetri.modbus.pdu.ReadHoldingRegistersResponse;
import com.digitalpetri.modbus.pdu.ReadWriteMultipleRegistersRequest;
import com.digitalpetri.modbus.pdu.ReadWriteMultipleRegistersResponse;
import com.digitalpetri.modbus.pdu.WriteMultipleCoilsRequest;
import com.digitalpetri.modbus.pdu.WriteMultipleCoilsResponse;
import com.digitalpetri.modbus.pdu.WriteMultipleRegistersRequest;
import com.digitalpetri.modbus.pdu.WriteMultipleRegistersResponse;
import com.digitalpetri.modbus.server.ModbusRequestContext;
import com.digitalpetri.modbus.server.ModbusServices;
import com.digitalpetri.modbus.server.ModbusTcpServer;
import com.digitalpetri.modbus.tcp.server.NettyTcpServerTransport;
import java.io.DataInputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.core.layout.RegisterTable;
import org.openpasture.inlets.reach.Reach;

/** Devices that know only some of the functions by which the same thing can be written. */
class ModbusLineTest {
    private static final RegisterLayout.Write WORD =
            new RegisterLayout.Write.All(RegisterTable.HOLDING, 7, new byte[] {0x12, 0x34});
    private static final RegisterLayout.Write COIL =
            new RegisterLayout.Write.All(RegisterTable.COIL, 3, new byte[] {1});
    private static final RegisterLayout.Write BIT = new RegisterLayout.Write.Part(7, 0xFFEF, 0x0010);
    private final List<String> heard = new CopyOnWriteArrayList<>();
    private final List<AutoCloseable> open = new ArrayList<>();

    @AfterEach
    void close() throws Exception {
        for (AutoCloseable one : open.reversed()) {
            one.close();
        }
    }

    private ModbusLine to(ModbusServices device) throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        ModbusTcpServer server = ModbusTcpServer.create(
                NettyTcpServerTransport.create(
                        config -> config.setBindAddress("127.0.0.1").setPort(port)),
                device);
        server.start();
        open.add(server::stop);
        ModbusLine line = ModbusLine.tcp("127.0.0.1", port, 1_000, Reach.ANYWHERE);
        open.add(line);
        return line;
    }

    /** Knows functions 15 and 16, and none for a single one. */
    private final class OnlySeveral implements ModbusServices {
        @Override
        public WriteMultipleCoilsResponse writeMultipleCoils(
                ModbusRequestContext context, int unit, WriteMultipleCoilsRequest request) {
            heard.add("15: " + request.address() + " " + request.quantity() + " " + request.values()[0]);
            return new WriteMultipleCoilsResponse(request.address(), request.quantity());
        }

        @Override
        public WriteMultipleRegistersResponse writeMultipleRegisters(
                ModbusRequestContext context, int unit, WriteMultipleRegistersRequest request) {
            heard.add("16: " + request.address() + " " + HexFormat.of().formatHex(request.values()));
            return new WriteMultipleRegistersResponse(request.address(), request.quantity());
        }

        @Override
        public ReadHoldingRegistersResponse readHoldingRegisters(
                ModbusRequestContext context, int unit, ReadHoldingRegistersRequest request) {
            return new ReadHoldingRegistersResponse(new byte[] {(byte) 0xAB, 0x0F});
        }
    }

    @Test
    void whatOneFunctionDoesNotDoAnotherDoes() throws Exception {
        ModbusLine line = to(new OnlySeveral());
        line.write(1, WORD);
        line.write(1, COIL);
        line.write(1, BIT);
        assertThat(heard)
                .as("the bit by reading the register and writing it")
                .containsExactly("16: 7 1234", "15: 3 1 1", "16: 7 ab1f");
    }

    @Test
    void aDeviceThatOnlyReadsAndWritesAtOnceIsWrittenSo() throws Exception {
        ModbusLine line = to(new ModbusServices() {
            @Override
            public ReadWriteMultipleRegistersResponse readWriteMultipleRegisters(
                    ModbusRequestContext context, int unit, ReadWriteMultipleRegistersRequest request) {
                heard.add("23: " + request.writeAddress() + " " + HexFormat.of().formatHex(request.values())
                        + ", reads " + request.readAddress() + " " + request.readQuantity());
                return new ReadWriteMultipleRegistersResponse(request.values());
            }
        });
        line.write(1, WORD);
        assertThat(heard).containsExactly("23: 7 1234, reads 7 1");
    }

    @Test
    void aBitIsSetInOneStepWhereTheDeviceKnowsHow() throws Exception {
        ModbusLine line = to(new ModbusServices() {
            @Override
            public MaskWriteRegisterResponse maskWriteRegister(
                    ModbusRequestContext context, int unit, MaskWriteRegisterRequest request) {
                heard.add("22: " + request.address() + " " + Integer.toHexString(request.andMask()) + " "
                        + Integer.toHexString(request.orMask()));
                return new MaskWriteRegisterResponse(request.address(), request.andMask(), request.orMask());
            }
        });
        line.write(1, BIT);
        assertThat(heard).containsExactly("22: 7 ffef 10");
    }

    @Test
    void whatItCannotDoIsSaid() throws Exception {
        ModbusLine line = to(new ModbusServices() {});
        assertThatThrownBy(() -> line.write(1, WORD))
                .isInstanceOf(ModbusLine.Refused.class)
                .hasMessage("it does not know how to write holding registers");
        assertThatThrownBy(() -> line.write(1, COIL)).hasMessage("it does not know how to write coil bits");
        assertThatThrownBy(() -> line.write(1, BIT))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("holding");
    }

    /** A device that answers each request with these bytes behind the transaction's number, whatever was asked. */
    private ModbusLine toOneThatSays(String hex) throws IOException {
        ServerSocket server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
        open.add(server);
        Thread.ofVirtual().start(() -> {
            while (!server.isClosed()) {
                try (Socket socket = server.accept()) {
                    DataInputStream in = new DataInputStream(socket.getInputStream());
                    while (true) {
                        byte[] request = in.readNBytes(12);
                        if (request.length < 12) {
                            break;
                        }
                        socket.getOutputStream().write(request, 0, 2);
                        socket.getOutputStream().write(HexFormat.of().parseHex(hex.replace(" ", "")));
                    }
                } catch (IOException e) {
                    // The test is over, or hung up.
                    continue;
                }
            }
        });
        ModbusLine line = ModbusLine.tcp("127.0.0.1", server.getLocalPort(), 300, Reach.ANYWHERE);
        open.add(line);
        return line;
    }

    /** Behind the transaction: protocol 0, length, unit, function, count of bytes, bytes. */
    @ParameterizedTest
    @CsvSource({
        "0000 0005 01 03 02 0007, it answered with 2 bytes instead of 4",
        "0000 0007 01 03 04 00070008, ''",
        "0000 0003 01 83 02, it has no holding 0 to 1",
        "0000 0003 01 83 63, it refused holding 0 to 1 with code 99",
        "0000 0007 01 03 04 0007, no answer within 300 ms",
        "0000 0007 01 04 04 00070008, its answer cannot be read: unexpected function code: 0x04",
        "0000 0007 02 03 04 00070008, 'no answer within 300 ms, but one of unit 2'",
        "0000 0005 01 03 F0 0007, its answer cannot be read"
    })
    void answersThatAreNotWhatWasAskedForAreSaid(String answer, String words) throws Exception {
        ModbusLine line = toOneThatSays(answer);
        Optional<String> problem = Optional.empty();
        try {
            assertThat(line.read(1, new RegisterLayout.Request(RegisterTable.HOLDING, 0, 2)))
                    .hasSize(4);
        } catch (ModbusLine.Refused | ModbusLine.Dead e) {
            problem = Optional.of(String.valueOf(e.getMessage()));
        }
        assertThat(problem.orElse("")).isEqualTo(words);
    }

    /**
     * The answer of the standard's example (application protocol 1.1b3, 6.21), as far as it is one of basic objects.
     */
    @Test
    void whoItIsIsReadFromTheAnswer() {
        byte[] answer = HexFormat.of()
                .parseHex("2b0e0101000003" + "0016" + HexFormat.of().formatHex("Company identification".getBytes())
                        + "010d" + HexFormat.of().formatHex("Product code ".getBytes()) + "0205"
                        + HexFormat.of().formatHex("V2.11".getBytes()));
        assertThat(Identification.inWords(answer)).contains("Company identification, Product code, V2.11");
        assertThat(Identification.inWords(HexFormat.of().parseHex("2b0e0101000000")))
                .isEmpty();
        assertThatThrownBy(() -> Identification.inWords(HexFormat.of().parseHex("ab01")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Identification.inWords(HexFormat.of().parseHex("2b0e010100000300")))
                .hasMessageContaining("cut off");
    }
}
