package org.openpasture.service.notice;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.openpasture.api.alert.NoticeView;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.api.setting.MailTest;
import org.openpasture.api.setting.TestResult;
import org.openpasture.engine.notice.Mailer;
import org.openpasture.engine.notice.NotDelivered;
import org.openpasture.engine.notice.NoticeSender;
import org.openpasture.engine.notice.NoticeViews;
import org.openpasture.service.access.Reader;
import org.openpasture.store.notice.NoticeStore;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The mail server, its test, and what was and was not delivered. For owners. */
@RestController
public class MailController {
    private final Mailer mailer;
    private final NoticeStore notices;
    private final NoticeSender sender;
    private final Reader reader;
    private final Clock clock;

    MailController(Mailer mailer, NoticeStore notices, NoticeSender sender, Reader reader, Clock clock) {
        this.mailer = mailer;
        this.notices = notices;
        this.sender = sender;
        this.reader = reader;
        this.clock = clock;
    }

    @GetMapping("/api/v1/settings/mail")
    ResponseEntity<MailSettings> settings() {
        reader.requireOwner("see the mail settings");
        return mailer.settings().map(ResponseEntity::ok).orElseGet(() -> ResponseEntity.noContent()
                .build());
    }

    /** Keeps the settings; what waits in the outbox is tried again with them. */
    @PutMapping("/api/v1/settings/mail")
    void save(@RequestBody MailSettings settings) {
        reader.requireOwner("change the mail settings");
        mailer.save(settings);
        notices.tryAgain(clock.instant());
        sender.wake();
    }

    /** Sends a test message at once and says what came of it. */
    @PostMapping("/api/v1/settings/mail/test")
    TestResult test(@RequestBody MailTest test) {
        reader.requireOwner("send test messages");
        Optional<NotDelivered> problem = mailer.send(
                test.to(),
                "Test message from Open Pasture",
                "This mail server works. Notices about alerts will arrive like this message.\n");
        return problem.map(reason -> new TestResult(false, "Not delivered: " + reason.reason() + "."))
                .orElseGet(() -> new TestResult(true, "The mail server took the message for " + test.to() + "."));
    }

    @GetMapping("/api/v1/notices")
    List<NoticeView> notices() {
        reader.requireOwner("see all notices");
        return notices.recent(200).stream()
                .map(notice -> NoticeViews.of(reader.now(), notice))
                .toList();
    }
}
