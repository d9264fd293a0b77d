package org.openpasture.core.reading;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Something for each point, by its number. Numbers are small and given in turn, so this is an array that grows; every
 * reading asks it several times, and a hash map was a tenth of the whole cost of a reading. Any thread may ask.
 */
public final class ByPoint<T> {
    private static final int MOST_IN_ARRAY = 1 << 20;
    private static final VarHandle ELEMENT = MethodHandles.arrayElementVarHandle(Object[].class);
    private final Supplier<T> make;
    private volatile @Nullable Object[] array = new @Nullable Object[256];
    /** For numbers that no registry gives; replaced as a whole. */
    private volatile Map<Integer, T> others = Map.of();

    /** A table that makes what it does not have yet. */
    public ByPoint(Supplier<T> make) {
        this.make = make;
    }

    /** What there is for a point; null for nothing. */
    @SuppressWarnings("unchecked") // only add() puts anything in, and it puts in what make gives
    public @Nullable T find(int point) {
        @Nullable Object[] now = array;
        return point >= 0 && point < now.length ? (T) ELEMENT.getAcquire(now, point) : others.get(point);
    }

    /** What there is for a point; made if there is nothing. */
    public T get(int point) {
        T known = find(point);
        return known != null ? known : add(point);
    }

    private synchronized T add(int point) {
        T known = find(point);
        if (known != null) {
            return known;
        }
        T made = make.get();
        if (point < 0 || point >= MOST_IN_ARRAY) {
            Map<Integer, T> more = new TreeMap<>(others);
            more.put(point, made);
            others = more;
        } else {
            if (point >= array.length) {
                array = Arrays.copyOf(array, Integer.highestOneBit(point) * 2);
            }
            ELEMENT.setRelease(array, point, made);
        }
        return made;
    }

    /** Goes through all, in the order of numbers. */
    public void forEach(BiConsumer<Integer, T> each) {
        for (int point = 0; point < array.length; point++) {
            T known = find(point);
            if (known != null) {
                each.accept(point, known);
            }
        }
        others.forEach(each);
    }
}
