package org.openpasture.engine.notice;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.Properties;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.store.setting.SettingStore;
import org.springframework.mail.MailException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;

/** Sends mails by the server that is set up, and says in words what is wrong when it cannot. */
@Component
public class Mailer {
    private static final String SETTING = "mail";
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

    /** Sends one mail; returns what went wrong in words, or nothing. */
    public Optional<String> send(String recipient, String subject, String body) {
        Optional<MailSettings> found = settings();
        if (found.isEmpty()) {
            return Optional.of("no mail server is set up (Settings, Mail)");
        }
        MailSettings mail = found.get();
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        sender.setHost(mail.host());
        sender.setPort(mail.port());
        Properties properties = sender.getJavaMailProperties();
        properties.put("mail.smtp.connectiontimeout", "10000");
        properties.put("mail.smtp.timeout", "10000");
        properties.put("mail.smtp.writetimeout", "10000");
        if (mail.startTls()) {
            properties.put("mail.smtp.starttls.enable", "true");
            properties.put("mail.smtp.starttls.required", "true");
        }
        if (mail.user() != null && !mail.user().isBlank()) {
            properties.put("mail.smtp.auth", "true");
            sender.setUsername(mail.user());
            settings.secret(SETTING, "password")
                    .ifPresent(secret -> sender.setPassword(new String(secret, StandardCharsets.UTF_8)));
        }
        SimpleMailMessage message = new SimpleMailMessage();
        message.setFrom(mail.from());
        message.setTo(recipient);
        message.setSubject(subject);
        message.setText(body);
        try {
            sender.send(message);
            return Optional.empty();
        } catch (MailException e) {
            return Optional.of(words(e, mail));
        }
    }

    private static String words(Throwable error, MailSettings mail) {
        Throwable root = error;
        while (root.getCause() != null) {
            root = root.getCause();
        }
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
