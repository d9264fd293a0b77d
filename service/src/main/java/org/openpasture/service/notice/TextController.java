package org.openpasture.service.notice;

import java.time.Clock;
import org.openpasture.api.setting.LifeSignSettings;
import org.openpasture.api.setting.LifeSignView;
import org.openpasture.api.setting.TestResult;
import org.openpasture.api.setting.TextSettings;
import org.openpasture.api.setting.TextTest;
import org.openpasture.engine.notice.LifeSign;
import org.openpasture.engine.notice.NoticeSender;
import org.openpasture.engine.notice.Texter;
import org.openpasture.service.access.Reader;
import org.openpasture.store.notice.NoticeStore;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The gateway for text messages, and life signs. For owners. */
@RestController
class TextController {
    private final Texter texter;
    private final LifeSign lifeSign;
    private final NoticeStore notices;
    private final NoticeSender sender;
    private final Reader reader;
    private final Clock clock;

    TextController(
            Texter texter, LifeSign lifeSign, NoticeStore notices, NoticeSender sender, Reader reader, Clock clock) {
        this.texter = texter;
        this.lifeSign = lifeSign;
        this.notices = notices;
        this.sender = sender;
        this.reader = reader;
        this.clock = clock;
    }

    /** The gateway without its secret; 204 if none is configured. */
    @GetMapping("/api/v1/settings/text")
    ResponseEntity<TextSettings> settings() {
        reader.requireOwner("see the text message settings");
        return texter.settings().map(ResponseEntity::ok).orElseGet(() -> ResponseEntity.noContent()
                .build());
    }

    /** Keeps the settings; what waits in the outbox is tried again with them. */
    @PutMapping("/api/v1/settings/text")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void save(@RequestBody TextSettings settings) {
        reader.requireOwner("change the text message settings");
        texter.save(settings);
        notices.tryAgain(clock.instant());
        sender.wake();
    }

    /** Sends a test message at once and says what came of it. */
    @PostMapping("/api/v1/settings/text/test")
    TestResult test(@RequestBody TextTest test) {
        reader.requireOwner("send test messages");
        return texter.send(test.to(), "Test message from Open Pasture. Notices about alerts will arrive like this one.")
                .map(problem -> new TestResult(false, "Not delivered: " + problem.reason() + "."))
                .orElseGet(() -> new TestResult(true, "The gateway took the message for " + test.to() + "."));
    }

    /** How life signs are sent, and what became of the last one. */
    @GetMapping("/api/v1/settings/life-sign")
    LifeSignView lifeSign() {
        reader.requireOwner("see the life signs");
        return lifeSign.view();
    }

    /** Sends life signs in this way from now on; the first one at once. */
    @PutMapping("/api/v1/settings/life-sign")
    LifeSignView saveLifeSign(@RequestBody LifeSignSettings settings) {
        reader.requireOwner("change the life signs");
        return lifeSign.save(settings);
    }

    /** Sends no life signs any more. */
    @DeleteMapping("/api/v1/settings/life-sign")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stopLifeSign() {
        reader.requireOwner("change the life signs");
        lifeSign.stop();
    }
}
