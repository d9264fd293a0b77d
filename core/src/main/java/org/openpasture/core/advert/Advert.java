package org.openpasture.core.advert;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.bytes.Bytes;

/**
 * What a Bluetooth LE beacon calls out: a row of AD structures (Bluetooth Core Specification, Vol 3, Part C, 11:
 * length, type, data; types from the Assigned Numbers, 2.3). Thirty-one bytes in a legacy advert, up to 1,650 in an
 * extended one.
 */
public record Advert(List<Structure> structures) {
    public static final int SHORT_NAME = 0x08;
    public static final int COMPLETE_NAME = 0x09;
    public static final int SERVICE_DATA_16 = 0x16;
    public static final int MANUFACTURER_DATA = 0xFF;
    private static final int LONGEST = 1_650;

    public Advert {
        structures = List.copyOf(structures);
    }

    /**
     * One AD structure.
     *
     * @param from where its data begins in the advert
     */
    public record Structure(int type, byte[] data, int from) {
        /**
         * The company or service that manufacturer data and service data begin with, least significant byte first; -1
         * if it has none.
         */
        public int id() {
            return data.length < 2 ? -1 : Bytes.little(data, 0, 2);
        }

        /** What follows the company or service. */
        public byte[] content() {
            return Arrays.copyOfRange(data, Math.min(2, data.length), data.length);
        }
    }

    /**
     * Reads an advert. A length of zero ends it early, as the specification says.
     *
     * @throws IllegalArgumentException if a structure reaches beyond the end, in words
     */
    public static Advert of(byte[] bytes) {
        if (bytes.length > LONGEST) {
            throw new IllegalArgumentException("an advert has " + LONGEST + " bytes at most, not " + bytes.length);
        }
        List<Structure> structures = new ArrayList<>();
        int at = 0;
        while (at < bytes.length && bytes[at] != 0) {
            int length = bytes[at] & 0xFF;
            if (at + 1 + length > bytes.length) {
                throw new IllegalArgumentException("the structure at byte " + at + " has " + length
                        + " bytes, but only " + (bytes.length - at - 1) + " follow");
            }
            structures.add(
                    new Structure(bytes[at + 1] & 0xFF, Arrays.copyOfRange(bytes, at + 2, at + 1 + length), at + 2));
            at += 1 + length;
        }
        return new Advert(structures);
    }

    /** Data of a company, or of a service with a 16-bit number. */
    public Optional<Structure> find(int type, int id) {
        return structures.stream()
                .filter(one -> one.type() == type && one.id() == id)
                .findFirst();
    }

    /** What the beacon calls itself, the complete name rather than the short one. */
    public Optional<String> name() {
        return structures.stream()
                .filter(one -> one.type() == COMPLETE_NAME)
                .findFirst()
                .or(() -> structures.stream()
                        .filter(one -> one.type() == SHORT_NAME)
                        .findFirst())
                .map(one -> new String(one.data(), StandardCharsets.UTF_8));
    }
}
