package org.openpasture.core.layout;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What was read of a fieldbus device in one round, as bytes that are kept like any other frame: for each block its
 * table (1 byte), first address (2), count of bits or registers (2), then the data, two bytes for a register and one
 * for a bit.
 */
public record RegisterImage(List<Block> blocks) {
    private static final int HEAD = 5;
    private static final RegisterTable[] TABLES = RegisterTable.values();

    public RegisterImage {
        blocks = List.copyOf(blocks);
    }

    /**
     * Registers or bits that lie next to each other.
     *
     * @param data two bytes for a register, one for a bit
     */
    public record Block(RegisterTable table, int from, byte[] data) {
        int count() {
            return table.isBits() ? data.length : data.length / 2;
        }
    }

    public byte[] toBytes() {
        ByteBuffer out = ByteBuffer.allocate(
                blocks.stream().mapToInt(block -> HEAD + block.data().length).sum());
        blocks.forEach(block -> out.put((byte) block.table().ordinal())
                .putShort((short) block.from())
                .putShort((short) block.count())
                .put(block.data()));
        return out.array();
    }

    /**
     * The inverse.
     *
     * @throws IllegalArgumentException if the bytes are none
     */
    public static RegisterImage of(byte[] bytes) {
        List<Block> blocks = new ArrayList<>();
        ByteBuffer in = ByteBuffer.wrap(bytes);
        while (in.hasRemaining()) {
            if (in.remaining() < HEAD || in.get(in.position()) < 0 || in.get(in.position()) >= TABLES.length) {
                throw new IllegalArgumentException("it is no image of registers");
            }
            RegisterTable table = TABLES[in.get()];
            int from = in.getShort() & 0xFFFF;
            int length = (in.getShort() & 0xFFFF) * (table.isBits() ? 1 : 2);
            if (length > in.remaining()) {
                throw new IllegalArgumentException("it is no image of registers: a block is longer than what follows");
            }
            byte[] data = new byte[length];
            in.get(data);
            blocks.add(new Block(table, from, data));
        }
        return new RegisterImage(blocks);
    }

    /** The bytes of some bits or registers, and where they lie in {@link #toBytes}. */
    record Found(byte[] data, int at) {}

    Optional<Found> find(RegisterTable table, int from, int count) {
        int at = 0;
        for (Block block : blocks) {
            if (block.table() == table && from >= block.from() && from + count <= block.from() + block.count()) {
                int size = table.isBits() ? 1 : 2;
                int skip = (from - block.from()) * size;
                byte[] data = new byte[count * size];
                System.arraycopy(block.data(), skip, data, 0, data.length);
                return Optional.of(new Found(data, at + HEAD + skip));
            }
            at += HEAD + block.data().length;
        }
        return Optional.empty();
    }
}
