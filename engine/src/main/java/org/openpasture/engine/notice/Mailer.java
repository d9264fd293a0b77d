package org.openpasture.engine.notice;

import jakarta.activation.DataHandler;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.UUID;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.eclipse.angus.mail.smtp.SMTPSenderFailedException;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.store.setting.SettingStore;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;

/** Sends mails by the server that is set up, and says in words what is wrong when it cannot. */
@Component
public class Mailer implements Post {
    private static final String SETTING = "mail";
    /** From here on a server refuses for good (RFC 5321, 4.2.1). */
    private static final int PERMANENT = 500;
    /** Not who we say: a matter of the settings, not of the mail (RFC 4954, 6). */
    private static final int NOT_SIGNED_IN = 530;

    private static final int MOST_CAUSES = 50;
    private final SettingStore settings;

    Mailer(SettingStore settings) {
        this.settings = settings;
    }

    /** The settings without the password. */
    public Optional<MailSettings> settings() {
        return settings.find(SETTING, MailSettings.class);
    }

    /** Keeps settings; a password that is left out stays as it was. */
    public void save(MailSettings next) {
        if (next.password() != null && !next.password().isEmpty()) {
            settings.saveSecret(SETTING, "password", next.password().getBytes(StandardCharsets.UTF_8));
        }
        settings.save(
                SETTING, new MailSettings(next.host(), next.port(), next.from(), next.user(), null, next.startTls()));
    }

    /** Sends one mail that belongs to nothing; returns what went wrong, or nothing. */
    public Optional<NotDelivered> send(String recipient, String subject, String body) {
        return send(new Mail(UUID.randomUUID().toString(), null, recipient, subject, body));
    }

    @Override
    public Optional<NotDelivered> send(
            String id, String recipient, String subject, String body, List<Attachment> attachments) {
        return send(new Mail(id, null, recipient, subject, body, attachments));
    }

    /** Sends one mail; returns what went wrong, or nothing. */
    Optional<NotDelivered> send(Mail mail) {
        Optional<MailSettings> found = settings();
        if (found.isEmpty()) {
            return Optional.of(new NotDelivered("no mail server is set up (Settings, Mail)", false));
        }
        MailSettings server = found.get();
        JavaMailSenderImpl sender = sender(server);
        try {
            sender.send(message(sender, server, mail));
            return Optional.empty();
        } catch (MailException | MessagingException e) {
            return Optional.of(failure(e, server));
        }
    }

    private JavaMailSenderImpl sender(MailSettings server) {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        sender.setHost(server.host());
        sender.setPort(server.port());
        Properties properties = sender.getJavaMailProperties();
        properties.put("mail.smtp.connectiontimeout", "10000");
        properties.put("mail.smtp.timeout", "10000");
        properties.put("mail.smtp.writetimeout", "10000");
        if (server.startTls()) {
            properties.put("mail.smtp.starttls.enable", "true");
            properties.put("mail.smtp.starttls.required", "true");
        }
        if (server.user() != null && !server.user().isBlank()) {
            properties.put("mail.smtp.auth", "true");
            sender.setUsername(server.user());
            settings.secret(SETTING, "password")
                    .ifPresent(secret -> sender.setPassword(new String(secret, StandardCharsets.UTF_8)));
        }
        return sender;
    }

    /**
     * Text and HTML, said to be written by a machine (RFC 3834, 5). All mails of an alert refer to one message that was
     * never sent, so that they stand together (RFC 5322, 3.6.4).
     */
    private static MimeMessage message(JavaMailSenderImpl sender, MailSettings server, Mail mail)
            throws MessagingException {
        String domain =
                server.from().substring(server.from().lastIndexOf('@') + 1).replaceAll("[>\\s]", "");
        MimeMessage message = new MimeMessage(sender.getSession()) {
            @Override
            protected void updateMessageID() throws MessagingException {
                setHeader("Message-ID", messageId(mail.id(), domain));
            }
        };
        message.setFrom(new InternetAddress(server.from()));
        message.setRecipient(Message.RecipientType.TO, new InternetAddress(mail.recipient()));
        message.setSubject(mail.subject(), "UTF-8");
        MimeBodyPart plain = new MimeBodyPart();
        plain.setText(mail.text(), "UTF-8");
        MimeBodyPart html = new MimeBodyPart();
        html.setText(MailHtml.of(mail.text()), "UTF-8", "html");
        MimeMultipart text = new MimeMultipart("alternative", plain, html);
        message.setContent(mail.attachments().isEmpty() ? text : with(text, mail.attachments()));
        message.setHeader("Auto-Submitted", "auto-generated");
        if (mail.thread() != null) {
            message.setHeader("References", messageId(mail.thread(), domain));
            message.setHeader("In-Reply-To", messageId(mail.thread(), domain));
            message.setHeader("List-Id", "Alerts of Open Pasture <alerts." + domain + ">");
        }
        return message;
    }

    private static MimeMultipart with(MimeMultipart text, List<Attachment> attachments) throws MessagingException {
        MimeBodyPart first = new MimeBodyPart();
        first.setContent(text);
        MimeMultipart whole = new MimeMultipart("mixed", first);
        for (Attachment attachment : attachments) {
            MimeBodyPart part = new MimeBodyPart();
            part.setDataHandler(new DataHandler(new ByteArrayDataSource(attachment.content(), attachment.type())));
            part.setFileName(attachment.name());
            whole.addBodyPart(part);
        }
        return whole;
    }

    /** An id that a header can hold, of whatever text. */
    private static String messageId(String of, String domain) {
        return "<" + UUID.nameUUIDFromBytes(of.getBytes(StandardCharsets.UTF_8)) + "@" + domain + ">";
    }

    private static NotDelivered failure(Exception error, MailSettings server) {
        for (Throwable cause : causes(error)) {
            int code =
                    switch (cause) {
                        case SMTPAddressFailedException address -> address.getReturnCode();
                        case SMTPSenderFailedException from -> from.getReturnCode();
                        case SMTPSendFailedException whole -> whole.getReturnCode();
                        default -> 0;
                    };
            if (code >= PERMANENT && code != NOT_SIGNED_IN) {
                return new NotDelivered(
                        server.host() + " refuses it: "
                                + String.valueOf(cause.getMessage()).strip(),
                        true);
            }
        }
        return new NotDelivered(words(error, server), false);
    }

    /** An error and all that led to it, also where the mail library keeps those apart. */
    private static List<Throwable> causes(Throwable error) {
        List<Throwable> all = new ArrayList<>();
        Deque<Throwable> open = new ArrayDeque<>(List.of(error));
        while (!open.isEmpty() && all.size() < MOST_CAUSES) {
            Throwable next = open.remove();
            all.add(next);
            Optional.ofNullable(next.getCause()).ifPresent(open::add);
            if (next instanceof MailSendException sending) {
                open.addAll(List.of(sending.getMessageExceptions()));
            }
            if (next instanceof MessagingException messaging) {
                Optional.ofNullable(messaging.getNextException()).ifPresent(open::add);
            }
        }
        return all;
    }

    private static String words(Throwable error, MailSettings mail) {
        Throwable root = causes(error).getLast();
        String server = mail.host() + ":" + mail.port();
        return switch (root) {
            case java.net.ConnectException refused -> "nothing answers at " + server + "; check address and port";
            case java.net.UnknownHostException unknown ->
                "the name " + mail.host() + " is not known; check it, and that the network is up";
            case java.net.SocketTimeoutException slow -> server + " does not answer in time";
            case jakarta.mail.AuthenticationFailedException wrong -> server + " refuses user or password";
            default -> server + " says: " + String.valueOf(root.getMessage()).strip();
        };
    }
}
