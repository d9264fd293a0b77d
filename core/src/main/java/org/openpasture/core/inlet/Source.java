package org.openpasture.core.inlet;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.jspecify.annotations.Nullable;

/** Where an inlet gets its messages from. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Source.TcpPort.class, name = "tcp"),
    @JsonSubTypes.Type(value = Source.UdpPort.class, name = "udp"),
    @JsonSubTypes.Type(value = Source.SerialPort.class, name = "serial"),
    @JsonSubTypes.Type(value = Source.HttpInbox.class, name = "http-inbox")
})
public sealed interface Source {
  /** Where it is, for people. */
  String address();

  /**
   * Devices or bridges connect to a port of ours and send a stream.
   *
   * @param port 0 for any free one
   * @param bind address to listen at; null for all
   */
  record TcpPort(int port, @Nullable String bind) implements Source {
    public TcpPort {
      requirePort(port);
    }

    @Override
    public String address() {
      return "TCP port " + port;
    }
  }

  /** Devices or bridges send datagrams to a port of ours. */
  record UdpPort(int port, @Nullable String bind) implements Source {
    public UdpPort {
      requirePort(port);
    }

    @Override
    public String address() {
      return "UDP port " + port;
    }
  }

  /**
   * A bridge at a serial port.
   *
   * @param device its path, "/dev/ttyUSB0"
   * @param baud bits in a second
   * @param dataBits 5 to 8; null for 8
   * @param parity none, even or odd; null for none
   * @param stopBits 1 or 2; null for 1
   */
  record SerialPort(String device, int baud, @Nullable Integer dataBits, @Nullable String parity, @Nullable Integer stopBits) implements Source {
    private static final int FASTEST = 4_000_000;

    public SerialPort {
      if (device.isBlank()) {
        throw new IllegalArgumentException("the serial port is missing, for example /dev/ttyUSB0");
      }
      if (baud < 50 || baud > FASTEST) {
        throw new IllegalArgumentException("the speed of a serial port is 50 to " + FASTEST + " bits in a second, not " + baud);
      }
      if (dataBits != null && (dataBits < 5 || dataBits > 8) || stopBits != null && stopBits != 1 && stopBits != 2) {
        throw new IllegalArgumentException("a serial port has 5 to 8 data bits and 1 or 2 stop bits");
      }
      if (parity != null && !parity.equals("none") && !parity.equals("even") && !parity.equals("odd")) {
        throw new IllegalArgumentException("parity is none, even or odd, not '" + parity + "'");
      }
    }

    @Override
    public String address() {
      return device + ", " + baud + " bit/s";
    }
  }

  /** Devices or bridges post to an address of ours, with a token. */
  record HttpInbox() implements Source {
    @Override
    public String address() {
      return "/in/";
    }
  }

  private static void requirePort(int port) {
    if (port < 0 || port > 65_535) {
      throw new IllegalArgumentException("a port is 1 to 65535, not " + port);
    }
  }
}
