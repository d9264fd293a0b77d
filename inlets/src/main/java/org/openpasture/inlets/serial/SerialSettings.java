package org.openpasture.inlets.serial;

import com.fazecast.jSerialComm.SerialPort;
import org.openpasture.core.inlet.SerialLine;

/** A line's settings as the serial library counts them. */
public record SerialSettings(int dataBits, int stopBits, int parity) {
    public static SerialSettings of(SerialLine line) {
        return new SerialSettings(
                line.dataBits() == null ? 8 : line.dataBits(),
                line.stopBits() != null && line.stopBits() == 2 ? SerialPort.TWO_STOP_BITS : SerialPort.ONE_STOP_BIT,
                "even".equals(line.parity())
                        ? SerialPort.EVEN_PARITY
                        : "odd".equals(line.parity()) ? SerialPort.ODD_PARITY : SerialPort.NO_PARITY);
    }
}
