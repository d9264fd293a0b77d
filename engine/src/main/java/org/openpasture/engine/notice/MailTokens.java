package org.openpasture.engine.notice;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import java.util.Optional;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.secret.SecretBox;
import org.springframework.stereotype.Component;

/**
 * Tokens by which the reader of a notice acknowledges its alert without signing in: the id of the notice, sealed with
 * this instance's key. Each is for one alert and a week; that it counts once follows from the alert, which can be
 * acknowledged once. For any thread.
 */
@Component
public class MailTokens {
    private static final Duration LASTS = Duration.ofDays(7);
    private static final String PURPOSE = "acknowledge\n";
    private final SecretBox box;
    private final NoticeStore notices;
    private final Clock clock;

    MailTokens(RegistryDatabase database, NoticeStore notices, Clock clock) {
        this.box = database.secrets();
        this.notices = notices;
        this.clock = clock;
    }

    /** A token for a notice. */
    public String of(String noticeId) {
        return Base64.getUrlEncoder()
                .withoutPadding()
                .encodeToString(box.seal((PURPOSE + noticeId).getBytes(StandardCharsets.UTF_8)));
    }

    /** The notice that a token belongs to; empty for one that was not made here, or is too old. */
    public Optional<Notice> notice(String token) {
        return opened(token)
                .filter(text -> text.startsWith(PURPOSE))
                .flatMap(text -> notices.find(text.substring(PURPOSE.length())))
                .filter(notice -> clock.instant().isBefore(notice.nextAt().plus(LASTS)));
    }

    private Optional<String> opened(String token) {
        try {
            return Optional.of(new String(box.open(Base64.getUrlDecoder().decode(token)), StandardCharsets.UTF_8));
        } catch (IllegalArgumentException | IllegalStateException | IndexOutOfBoundsException e) {
            return Optional.empty();
        }
    }
}
