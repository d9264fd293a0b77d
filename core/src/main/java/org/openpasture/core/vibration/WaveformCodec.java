package org.openpasture.core.vibration;

import java.nio.ByteBuffer;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * A waveform in few bytes. A head (version, kind, samples per second, count, mean, step; big-endian), then the samples
 * without their mean in steps of a 32,767th of the greatest, 16 bits each: their differences, all high bytes before all
 * low ones, deflated (RFC 1951). What comes back differs by half a step at most.
 */
public final class WaveformCodec {
    private static final int VERSION = 1;
    private static final int HEAD = 2 + 8 + 4 + 8 + 8;
    private static final int FINEST = 32_767;

    private WaveformCodec() {}

    public static byte[] pack(Waveform waveform) {
        double[] samples = waveform.alternating();
        double greatest = 0;
        for (double sample : samples) {
            greatest = Math.max(greatest, Math.abs(sample));
        }
        double step = greatest == 0 ? 1 : greatest / FINEST;
        int n = samples.length;
        byte[] planes = new byte[2 * n];
        int before = 0;
        for (int i = 0; i < n; i++) {
            int now = (int) Math.rint(samples[i] / step);
            int difference = now - before;
            planes[i] = (byte) (difference >> 8);
            planes[n + i] = (byte) difference;
            before = now;
        }
        Deflater deflater = new Deflater(Deflater.DEFAULT_COMPRESSION, true);
        try {
            deflater.setInput(planes);
            deflater.finish();
            byte[] room = new byte[2 * n + 1024];
            int length = deflater.deflate(room);
            return ByteBuffer.allocate(HEAD + length)
                    .put((byte) VERSION)
                    .put((byte) waveform.measured().ordinal())
                    .putDouble(waveform.samplesPerSecond())
                    .putInt(n)
                    .putDouble(waveform.mean())
                    .putDouble(step)
                    .put(room, 0, length)
                    .array();
        } finally {
            deflater.end();
        }
    }

    /**
     * The waveform of packed bytes.
     *
     * @throws IllegalArgumentException if they are damaged
     */
    public static Waveform unpack(byte[] packed) {
        ByteBuffer head = ByteBuffer.wrap(packed);
        if (packed.length < HEAD || head.get() != VERSION) {
            throw new IllegalArgumentException("a waveform on the disk is damaged, or of an unknown version");
        }
        int kind = head.get();
        double samplesPerSecond = head.getDouble();
        int n = head.getInt();
        double mean = head.getDouble();
        double step = head.getDouble();
        if (kind < 0 || kind >= Measured.values().length || n < Waveform.FEWEST || n > Waveform.MOST) {
            throw new IllegalArgumentException("a waveform on the disk is damaged: its head makes no sense");
        }
        byte[] planes = inflated(packed, 2 * n);
        double[] samples = new double[n];
        short now = 0;
        for (int i = 0; i < n; i++) {
            now += (short) (planes[i] << 8 | planes[n + i] & 0xff);
            samples[i] = mean + now * step;
        }
        return new Waveform(Measured.values()[kind], samplesPerSecond, samples);
    }

    private static byte[] inflated(byte[] packed, int length) {
        Inflater inflater = new Inflater(true);
        try {
            inflater.setInput(packed, HEAD, packed.length - HEAD);
            byte[] planes = new byte[length];
            if (inflater.inflate(planes) != length) {
                throw new IllegalArgumentException("a waveform on the disk is damaged: it is cut off");
            }
            return planes;
        } catch (DataFormatException e) {
            throw new IllegalArgumentException("a waveform on the disk is damaged: its bytes make no sense", e);
        } finally {
            inflater.end();
        }
    }
}
