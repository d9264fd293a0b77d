package org.openpasture.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class ByPointTest {
    @Property
    void itHoldsOneForEachNumberAndGoesThroughThemInOrder(@ForAll @Size(max = 60) List<Integer> numbers) {
        ByPoint<List<Integer>> table = new ByPoint<>(ArrayList::new);
        TreeMap<Integer, List<Integer>> expected = new TreeMap<>();
        for (int number : numbers) {
            int point = number % 3 == 0 ? number : Math.floorMod(number, 5_000);
            table.get(point).add(number);
            expected.computeIfAbsent(point, key -> new ArrayList<>()).add(number);
        }
        Map<Integer, List<Integer>> found = new TreeMap<>();
        table.forEach(found::put);
        assertThat(found).isEqualTo(expected);
    }

    @Test
    void whatNobodyAskedForIsNotMade() {
        ByPoint<List<Integer>> table = new ByPoint<>(ArrayList::new);
        assertThat(table.find(7)).isNull();
        assertThat(table.find(-1)).isNull();
        assertThat(table.find(Integer.MAX_VALUE)).isNull();
        assertThat(table.get(Integer.MAX_VALUE))
                .isSameAs(table.get(Integer.MAX_VALUE))
                .isSameAs(table.find(Integer.MAX_VALUE));
    }

    @Test
    void threadsThatAskAtOnceGetTheSame() throws InterruptedException {
        for (int round = 0; round < 20; round++) {
            ByPoint<Object> table = new ByPoint<>(Object::new);
            Object[][] got = new Object[4][3_000];
            List<Thread> threads = new ArrayList<>();
            for (Object[] mine : got) {
                threads.add(Thread.ofPlatform().start(() -> {
                    for (int point = 0; point < mine.length; point++) {
                        mine[point] = table.get(point);
                    }
                }));
            }
            for (Thread thread : threads) {
                thread.join();
            }
            assertThat(got[0]).containsExactly(got[1]).containsExactly(got[2]).containsExactly(got[3]);
        }
    }
}
