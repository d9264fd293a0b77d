package org.openpasture.simulator.mail;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A mail server and a gateway for text messages that keep what they get and show it on a page, and somebody who notices
 * when life signs stay away; nothing leaves the machine. Text messages are posted to {@code /text} and life signs to
 * {@code /life-sign}.
 */
public final class MailStandIn implements AutoCloseable {
    /** A mail that came in. */
    public record Mail(String to, String from, String subject, String body) {}

    /** A text message that came in. */
    public record Text(String to, String text) {}

    private final List<Text> texts = new CopyOnWriteArrayList<>();
    private volatile @Nullable JsonNode lifeSign;

    private final GreenMail smtp;
    private final HttpServer page;

    private final Map<String, Runnable> buttons = new ConcurrentSkipListMap<>();

    /**
     * Starts both.
     *
     * @param smtpPort 0 for any free one
     * @param pagePort 0 for any free one
     */
    public MailStandIn(int smtpPort, int pagePort) throws IOException {
        smtp = new GreenMail(new ServerSetup(smtpPort, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        smtp.start();
        page = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), pagePort), 16);
        page.createContext("/", this::show);
        page.createContext("/press", this::press);
        page.createContext("/text", exchange -> {
            JsonNode message =
                    JsonMapper.shared().readTree(exchange.getRequestBody().readAllBytes());
            texts.add(
                    new Text(message.path("to").asString(), message.path("text").asString()));
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        page.createContext("/life-sign", exchange -> {
            lifeSign = JsonMapper.shared().readTree(exchange.getRequestBody().readAllBytes());
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        page.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        page.start();
    }

    /** Puts a button on the page, by which something happens in the demo. */
    public void offer(String title, Runnable action) {
        buttons.put(title, action);
    }

    private void press(HttpExchange exchange) throws IOException {
        String name = URLDecoder.decode(
                Objects.requireNonNullElse(exchange.getRequestURI().getQuery(), ""), StandardCharsets.UTF_8);
        Runnable action = buttons.get(name);
        if (action != null && exchange.getRequestMethod().equals("POST")) {
            action.run();
        }
        exchange.getResponseHeaders().set("Location", "/");
        exchange.sendResponseHeaders(303, -1);
        exchange.close();
    }

    public int smtpPort() {
        return smtp.getSmtp().getPort();
    }

    public int pagePort() {
        return page.getAddress().getPort();
    }

    /** The text messages that came in, the oldest first. */
    public List<Text> texts() {
        return List.copyOf(texts);
    }

    /** The mails that came in, the oldest first. */
    public List<Mail> mails() {
        List<Mail> mails = new ArrayList<>();
        for (MimeMessage message : smtp.getReceivedMessages()) {
            try {
                mails.add(new Mail(
                        addresses(message.getAllRecipients()),
                        addresses(message.getFrom()),
                        message.getSubject(),
                        plain(message.getContent()).strip()));
            } catch (MessagingException | IOException e) {
                mails.add(new Mail("", "", "a mail that cannot be read", String.valueOf(e.getMessage())));
            }
        }
        return mails;
    }

    /** The text of a mail; of one in several forms the plain one. */
    private static String plain(Object content) throws MessagingException, IOException {
        if (!(content instanceof Multipart parts)) {
            return String.valueOf(content);
        }
        for (int i = 0; i < parts.getCount(); i++) {
            if (!parts.getBodyPart(i).isMimeType("text/html")) {
                return plain(parts.getBodyPart(i).getContent());
            }
        }
        return "";
    }

    private static String addresses(Object[] addresses) {
        return addresses == null
                ? ""
                : String.join(
                        ", ", Arrays.stream(addresses).map(String::valueOf).toList());
    }

    private void show(HttpExchange exchange) throws IOException {
        StringBuilder html = new StringBuilder("""
        <!doctype html><html lang="en"><meta charset="utf-8"><meta http-equiv="refresh" content="5">
        <meta name="viewport" content="width=device-width"><title>Stand-in mailbox</title>
        <style>body{font:16px/1.5 sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;background:#f7f4ec;color:#22251f}
        article{border-top:2px solid #5b6b4a;padding:.6rem 0 1rem}pre{white-space:pre-wrap;margin:.4rem 0}small{color:#55584f}</style>
        <h1>Stand-in mailbox</h1><p>Mails and text messages that the demo's service sent. Nothing leaves this machine.</p>
        """);
        buttons.keySet().forEach(title -> html.append("<form method=post action=\"/press?")
                .append(escape(title.replace(" ", "%20")))
                .append("\"><button style=\"font:inherit;padding:.4rem 1rem\">")
                .append(escape(title))
                .append("</button></form>"));
        html.append(lifeSignWords());
        texts.reversed().forEach(text -> html.append("<article><strong>Text message</strong><br><small>to ")
                .append(escape(text.to()))
                .append("</small><pre>")
                .append(escape(text.text()))
                .append("</pre></article>"));
        List<Mail> mails = mails();
        if (mails.isEmpty()) {
            html.append("<p>No mail yet. The first alert comes about a minute and a half after the start.</p>");
        }
        mails.reversed().forEach(mail -> html.append("<article><strong>")
                .append(escape(mail.subject()))
                .append("</strong><br><small>to ")
                .append(escape(mail.to()))
                .append(" from ")
                .append(escape(mail.from()))
                .append("</small><pre>")
                .append(escape(mail.body()))
                .append("</pre></article>"));
        byte[] bytes = html.append("</html>").toString().getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        exchange.sendResponseHeaders(200, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private String lifeSignWords() {
        JsonNode last = lifeSign;
        if (last == null) {
            return "";
        }
        Instant next = Instant.parse(last.path("nextAt").asString());
        boolean missing = Instant.now().isAfter(next.plusSeconds(30));
        return "<p><strong>Life sign: " + (missing ? "MISSING since " + next : "the service works") + "</strong> ("
                + escape(last.path("at").asString()) + ", "
                + last.path("openAlerts").asInt() + " open alerts"
                + escape(
                        last.path("problem").asString().isEmpty()
                                ? ""
                                : ", " + last.path("problem").asString())
                + ")</p>";
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    @Override
    public void close() {
        page.stop(0);
        smtp.stop();
    }
}
