package org.openpasture.engine.notice;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.notice.Recipient;
import org.openpasture.store.notice.Notice;
import org.springframework.stereotype.Component;

/** Delivers messages by the form of their address: by mail, as text messages, or in a browser. */
@Component
class Channels implements Delivery {
    private static final int SHOWN_IN_A_TEXT = 2;
    private static final int SHOWN_IN_A_BROWSER = 4;
    private static final int SHOWN_IN_A_MAIL = 40;
    private final Mailer mailer;
    private final Texter texter;
    private final Pusher pusher;
    private final NoticeText words;

    Channels(Mailer mailer, Texter texter, Pusher pusher, NoticeText words) {
        this.mailer = mailer;
        this.texter = texter;
        this.pusher = pusher;
        this.words = words;
    }

    @Override
    public Optional<NotDelivered> send(Notice notice) {
        return switch (Recipient.kept(notice.recipient())) {
            case Recipient.Mail mail ->
                mailer.send(new Mail(notice.id(), notice.alertId(), mail.address(), notice.subject(), notice.body()));
            case Recipient.Text text -> texter.send(text.number(), notice.body());
            case Recipient.OfBrowser browser ->
                pusher.send(
                        browser.id(),
                        new Pusher.Push(
                                NoticeText.withoutMark(notice.subject()),
                                notice.body(),
                                notice.alertId() == null ? "/" : "/alerts/" + notice.alertId(),
                                notice.alertId() == null ? "" : notice.alertId()));
            case Recipient.OfPerson person ->
                Optional.of(new NotDelivered("a person is notified by an address of theirs", true));
        };
    }

    @Override
    public Optional<NotDelivered> send(List<Notice> gathered) {
        Notice first = gathered.getFirst();
        return switch (Recipient.kept(first.recipient())) {
            case Recipient.Mail mail ->
                mailer.send(new Mail(
                        "gathered/" + first.id(),
                        null,
                        mail.address(),
                        words.gatheredSubject(gathered),
                        words.gatheredBody(gathered, SHOWN_IN_A_MAIL)));
            case Recipient.Text text -> texter.send(text.number(), words.gatheredBody(gathered, SHOWN_IN_A_TEXT));
            case Recipient.OfBrowser browser ->
                pusher.send(
                        browser.id(),
                        new Pusher.Push(
                                gathered.size() + " notices",
                                words.gatheredLines(gathered, SHOWN_IN_A_BROWSER),
                                "/alerts",
                                ""));
            case Recipient.OfPerson person ->
                Optional.of(new NotDelivered("a person is notified by an address of theirs", true));
        };
    }
}
