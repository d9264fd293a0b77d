package org.openpasture.service.alert;

import java.time.Clock;
import java.util.Locale;
import org.openpasture.api.alert.MailTokenRequest;
import org.openpasture.api.alert.MailedAlert;
import org.openpasture.core.judging.Event;
import org.openpasture.core.people.Person;
import org.openpasture.engine.judging.JudgeRunner;
import org.openpasture.engine.notice.MailTokens;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.alert.AlertView;
import org.openpasture.store.notice.Notice;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/**
 * The door for who reads a notice on the phone and has not signed in. The link only shows the alert, because mail
 * programs open links by themselves; the button behind it acknowledges.
 */
@RestController
class MailAcknowledgementController {
    private final MailTokens tokens;
    private final AlertStore alerts;
    private final JudgeRunner judge;
    private final Reader reader;
    private final Clock clock;

    MailAcknowledgementController(MailTokens tokens, AlertStore alerts, JudgeRunner judge, Reader reader, Clock clock) {
        this.tokens = tokens;
        this.alerts = alerts;
        this.judge = judge;
        this.reader = reader;
        this.clock = clock;
    }

    /** The alert of a notice, by the code of the link in it. */
    @PostMapping("/api/v1/notices/alert")
    MailedAlert look(@RequestBody MailTokenRequest request) {
        return answer(alert(notice(request)));
    }

    /** Acknowledges the alert of a notice. */
    @PostMapping("/api/v1/notices/acknowledgement")
    MailedAlert acknowledge(@RequestBody MailTokenRequest request) {
        Notice notice = notice(request);
        AlertView view = alert(notice);
        if (view.acknowledgedAt() != null) {
            throw Problem.conflict(
                    view.acknowledgedBy() + " has acknowledged this alert already.", "Nothing is left to do here.");
        }
        if (view.closedAt() != null) {
            throw Problem.conflict("This alert is closed.", "Nothing is left to do here.");
        }
        judge.take(new Event.AlertAcknowledged(
                clock.instant(), view.alert().id(), name(notice.recipient()), "by the link in a notice"));
        return answer(alert(notice));
    }

    private Notice notice(MailTokenRequest request) {
        return tokens.notice(request.token())
                .orElseThrow(() -> Problem.gone("This link is not valid any more.", "Sign in and look at the alerts."));
    }

    private AlertView alert(Notice notice) {
        return alerts.find(notice.alertId() == null ? "" : notice.alertId())
                .orElseThrow(() -> Problem.notFound("alert"));
    }

    /** Whose address it is, or the address. */
    private String name(String address) {
        return reader.now().all(Person.class).stream()
                .filter(person -> person.email().toLowerCase(Locale.ROOT).equals(address.toLowerCase(Locale.ROOT)))
                .map(Person::name)
                .findFirst()
                .orElse(address);
    }

    private static MailedAlert answer(AlertView view) {
        return new MailedAlert(
                view.alert().summary(),
                view.alert().severity(),
                view.state(),
                view.alert().raisedAt(),
                view.acknowledgedAt(),
                view.acknowledgedBy());
    }
}
