package org.openpasture.inlets.fieldbus;

import java.net.InetAddress;
import java.util.Locale;
import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.bacnet.BacnetAddress;
import org.openpasture.inlets.modbus.ModbusAddress;

/** Addresses of devices that are asked. */
public final class FieldbusAddress {
    private FieldbusAddress() {}

    /**
     * Checks the address of a device that is asked by a source.
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    public static void check(Source.Polled source, String address) {
        switch (source) {
            case Source.ModbusTcp tcp -> ModbusAddress.of(address);
            case Source.ModbusRtuOverTcp rtu -> ModbusAddress.unit(address);
            case Source.ModbusSerial serial -> ModbusAddress.unit(address);
            case Source.BacnetIp bacnet -> BacnetAddress.of(address);
        }
    }

    /**
     * The one form of an address, however it is spelt: hosts in small letters and without the dot at their end, numbers
     * without zeros in front, ports and units said. A text that is no address is its own form.
     */
    public static String normal(Source.Polled source, String address) {
        try {
            return switch (source) {
                case Source.ModbusTcp tcp -> {
                    ModbusAddress of = ModbusAddress.of(address);
                    yield host(of.host()) + " " + of.port() + " " + of.unit();
                }
                case Source.ModbusRtuOverTcp rtu -> Integer.toString(ModbusAddress.unit(address));
                case Source.ModbusSerial serial -> Integer.toString(ModbusAddress.unit(address));
                // A device object's instance is unique on the whole network (ASHRAE 135, 12.11.1), wherever it is said
                // to be.
                case Source.BacnetIp bacnet ->
                    Integer.toString(BacnetAddress.of(address).device());
            };
        } catch (IllegalArgumentException e) {
            return address;
        }
    }

    private static String host(String host) {
        try {
            return InetAddress.ofLiteral(host).getHostAddress();
        } catch (IllegalArgumentException e) {
            return host.toLowerCase(Locale.ROOT).replaceAll("\\.$", "");
        }
    }

    /** Whether a text is an address there. */
    public static boolean isOne(Source.Polled source, String address) {
        try {
            check(source, address);
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }
}
