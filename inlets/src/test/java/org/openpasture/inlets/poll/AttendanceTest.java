package org.openpasture.inlets.poll;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class AttendanceTest {
    private final List<String> said = new ArrayList<>();
    private final Attendance attendance = new Attendance((PollSink) Proxy.newProxyInstance(
            PollSink.class.getClassLoader(), new Class<?>[] {PollSink.class}, (proxy, method, args) -> {
                said.add(args[0] + ": " + args[1]);
                return null;
            }));

    @Test
    void theConditionFollowsWhoAnswers() {
        attendance.of(List.of());
        attendance.of(List.of("a"));
        attendance.note("a", false);
        attendance.note("a", false);
        attendance.note("a", true);
        attendance.of(List.of("a", "b", "c"));
        attendance.note("b", false);
        attendance.note("a", false);
        attendance.note("c", false);
        attendance.of(List.of("c"));
        attendance.note("gone", false);
        assertThat(said)
                .containsExactly(
                        "UP: No device is asked by it yet.",
                        "UP: Its device answers.",
                        "DOWN: Its device does not answer.",
                        "UP: Its device answers.",
                        "UP: All 3 devices answer.",
                        "DEGRADED: 1 of 3 devices do not answer.",
                        "DEGRADED: 2 of 3 devices do not answer.",
                        "DOWN: 3 of 3 devices do not answer.",
                        "DOWN: Its device does not answer.");
    }
}
