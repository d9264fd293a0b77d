package org.openpasture.acceptance;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceUnreachable;
import tools.jackson.databind.JsonNode;

/** Reads the live stream as an open page does, until it is closed. */
public final class LiveStream implements AutoCloseable {
    /** One event. */
    public record Told(String name, JsonNode data) {}

    private final List<Told> told = new CopyOnWriteArrayList<>();
    private final Thread thread;

    public LiveStream(ApiClient api, String events) {
        CountDownLatch open = new CountDownLatch(1);
        thread = Thread.ofVirtual().start(() -> {
            try {
                api.follow("api/v1/stream?events=" + events, (name, data) -> {
                    told.add(new Told(name, data));
                    open.countDown();
                    return true;
                });
            } catch (ServiceUnreachable e) {
                // The service has ended; what was told until then is there.
            }
        });
        try {
            if (!open.await(10, TimeUnit.SECONDS)) {
                throw new IllegalStateException("the live stream did not open");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Events of a name so far. */
    public List<JsonNode> of(String name) {
        return told.stream()
                .filter(one -> one.name().equals(name))
                .map(Told::data)
                .toList();
    }

    @Override
    public void close() {
        thread.interrupt();
    }
}
