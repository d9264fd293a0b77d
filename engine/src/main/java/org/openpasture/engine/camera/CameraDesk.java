package org.openpasture.engine.camera;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.camera.Camera;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.engine.picture.Cleaned;
import org.openpasture.engine.picture.PictureCleaner;
import org.openpasture.inlets.camera.CameraReader;
import org.springframework.stereotype.Component;

/**
 * Fetches pictures of cameras when somebody looks, however many look at once: each camera is asked once in its interval
 * at most, and after a failure not again for a while. Pictures are decoded and written anew, so that nothing but a
 * picture comes through. Safe for any thread; blocks until the picture is there.
 */
@Component
public class CameraDesk {
    /** The name of the secret with which a camera is signed in to. */
    public static final String PASSWORD = "password";

    private static final Duration WITHIN = Duration.ofSeconds(10);
    private static final Duration AFTER_FAILURE = Duration.ofSeconds(10);
    /** A picture at which nobody looks any more does not fill memory. */
    private static final Duration KEPT = Duration.ofMinutes(10);

    private final CameraReader reader = new CameraReader(WITHIN);
    private final InletSecrets secrets;
    private final Clock clock;
    private final Map<String, Watched> watched = new ConcurrentHashMap<>();

    CameraDesk(InletSecrets secrets, Clock clock) {
        this.secrets = secrets;
        this.clock = clock;
    }

    /**
     * The newest picture of a camera, no older than its interval.
     *
     * @throws IOException in words, if the camera gives none
     */
    public Shot picture(Camera camera) throws IOException, InterruptedException {
        Instant now = clock.instant();
        watched.values().removeIf(one -> one.isForgotten(now));
        return watched.compute(
                        camera.id(),
                        (id, before) -> before != null && before.camera.equals(camera) ? before : new Watched(camera))
                .picture();
    }

    /** What is wrong with a camera by the last look at it; empty if nothing is, or nobody looked. */
    public Optional<String> problem(Camera camera) {
        return Optional.ofNullable(watched.get(camera.id()))
                .filter(one -> one.camera.equals(camera))
                .flatMap(Watched::problem);
    }

    /** It has another password, or is gone. */
    public void forget(String cameraId) {
        watched.remove(cameraId);
    }

    /** What came of the last look at a camera. */
    private sealed interface Outcome {
        record Taken(Shot shot) implements Outcome {}

        record Failed(Instant at, String why) implements Outcome {}
    }

    private final class Watched {
        private final Camera camera;
        private final ReentrantLock lock = new ReentrantLock();
        private volatile Instant askedAt = clock.instant();
        private volatile @Nullable Outcome last;

        Watched(Camera camera) {
            this.camera = camera;
        }

        boolean isForgotten(Instant now) {
            return !lock.isLocked() && askedAt.plus(KEPT).isBefore(now);
        }

        Optional<String> problem() {
            return last instanceof Outcome.Failed failed ? Optional.of(failed.why()) : Optional.empty();
        }

        Shot picture() throws IOException, InterruptedException {
            askedAt = clock.instant();
            Optional<Shot> fresh = fresh();
            if (fresh.isPresent()) {
                return fresh.get();
            }
            if (!lock.tryLock(WITHIN.toMillis() + 1_000, TimeUnit.MILLISECONDS)) {
                throw new IOException("it does not answer");
            }
            try {
                // Somebody else may have fetched it, or failed to, in the meantime.
                Optional<Shot> meanwhile = fresh();
                return meanwhile.isPresent() ? meanwhile.get() : fetch();
            } finally {
                lock.unlock();
            }
        }

        /** What came of the last look, as long as that counts; a clock that was set back ends it. */
        private Optional<Shot> fresh() throws IOException {
            Instant now = clock.instant();
            return switch (last) {
                case null -> Optional.empty();
                case Outcome.Taken(Shot shot) ->
                    isWithin(now, shot.at(), Duration.ofSeconds(camera.everySeconds()))
                            ? Optional.of(shot)
                            : Optional.empty();
                case Outcome.Failed(Instant at, String why) -> {
                    if (isWithin(now, at, AFTER_FAILURE)) {
                        throw new IOException(why);
                    }
                    yield Optional.empty();
                }
            };
        }

        private static boolean isWithin(Instant now, Instant from, Duration span) {
            return !now.isBefore(from) && now.isBefore(from.plus(span));
        }

        private Shot fetch() throws IOException, InterruptedException {
            try {
                byte[] given = reader.read(
                        camera.address(), camera.user(), secrets.of(camera.id()).getOrDefault(PASSWORD, ""));
                Shot taken = new Shot(clock.instant(), cleaned(given));
                last = new Outcome.Taken(taken);
                return taken;
            } catch (IOException e) {
                last = new Outcome.Failed(
                        clock.instant(), Optional.ofNullable(e.getMessage()).orElse("it gives no picture"));
                throw e;
            }
        }

        private Cleaned cleaned(byte[] given) throws IOException {
            try {
                Cleaned picture = PictureCleaner.clean(given);
                if (picture.type().startsWith("image/svg")) {
                    throw new IOException("it gives a drawing, not a photograph (PNG or JPEG)");
                }
                return picture;
            } catch (IllegalArgumentException e) {
                throw new IOException("what it gives is no picture (PNG or JPEG)", e);
            }
        }
    }
}
