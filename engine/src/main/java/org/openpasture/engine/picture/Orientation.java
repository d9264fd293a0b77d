package org.openpasture.engine.picture;

import java.awt.geom.AffineTransform;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * How a camera was held, from the Exif part of a JPEG (Exif 2.32, 4.5.4 and 4.6.4, tag 274; values 1 to 8). What cannot
 * be read counts as upright.
 */
enum Orientation {
    UPRIGHT,
    MIRRORED,
    UPSIDE_DOWN,
    UPSIDE_DOWN_MIRRORED,
    ON_ITS_SIDE_MIRRORED,
    TURNED_RIGHT,
    TURNED_RIGHT_MIRRORED,
    TURNED_LEFT;

    private static final int START_OF_SCAN = 0xda;
    private static final int APP1 = 0xe1;
    private static final int TAG = 274;
    private static final int ENTRY_BYTES = 12;

    /** Of the bytes of a JPEG. */
    static Orientation of(byte[] jpeg) {
        try {
            ByteBuffer all = ByteBuffer.wrap(jpeg);
            int at = 2;
            while (at + 4 <= jpeg.length && (jpeg[at] & 0xff) == 0xff) {
                int marker = jpeg[at + 1] & 0xff;
                int length = all.getShort(at + 2) & 0xffff;
                if (marker == START_OF_SCAN || length < 2) {
                    break;
                }
                if (marker == APP1 && length > 16 && all.getInt(at + 4) == 0x45786966) {
                    return inTiff(all.slice(at + 10, length - 8));
                }
                at += 2 + length;
            }
        } catch (IndexOutOfBoundsException e) {
            // A damaged one is shown as it is.
        }
        return UPRIGHT;
    }

    private static Orientation inTiff(ByteBuffer tiff) {
        tiff.order(tiff.getShort(0) == 0x4949 ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int directory = tiff.getInt(4);
        int entries = tiff.getShort(directory) & 0xffff;
        for (int i = 0; i < entries; i++) {
            int entry = directory + 2 + i * ENTRY_BYTES;
            if ((tiff.getShort(entry) & 0xffff) == TAG) {
                int value = tiff.getShort(entry + 8) & 0xffff;
                return value >= 1 && value <= values().length ? values()[value - 1] : UPRIGHT;
            }
        }
        return UPRIGHT;
    }

    /** Whether what was wide is upright afterwards. */
    boolean isOnItsSide() {
        return ordinal() >= ON_ITS_SIDE_MIRRORED.ordinal();
    }

    /** Turns a picture of this size upright. */
    AffineTransform transform(int width, int height) {
        return switch (this) {
            case UPRIGHT -> new AffineTransform();
            case MIRRORED -> new AffineTransform(-1, 0, 0, 1, width, 0);
            case UPSIDE_DOWN -> new AffineTransform(-1, 0, 0, -1, width, height);
            case UPSIDE_DOWN_MIRRORED -> new AffineTransform(1, 0, 0, -1, 0, height);
            case ON_ITS_SIDE_MIRRORED -> new AffineTransform(0, 1, 1, 0, 0, 0);
            case TURNED_RIGHT -> new AffineTransform(0, 1, -1, 0, height, 0);
            case TURNED_RIGHT_MIRRORED -> new AffineTransform(0, -1, -1, 0, height, width);
            case TURNED_LEFT -> new AffineTransform(0, -1, 1, 0, 0, width);
        };
    }
}
