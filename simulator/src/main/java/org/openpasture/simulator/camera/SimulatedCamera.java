package org.openpasture.simulator.camera;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import java.util.concurrent.Executors;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;

/**
 * A camera that looks at a door: a picture at an address, for who signs in by the digest scheme (RFC 7616, with MD5, as
 * simple cameras do). On loopback.
 */
public final class SimulatedCamera implements AutoCloseable {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 360;
    private static final String REALM = "camera";
    private static final String NONCE = "5f2d9a31c07b";
    private static final Pattern FIELD = Pattern.compile("(\\w+)=\"?([^\",]+)\"?");
    private static final DateTimeFormatter WRITTEN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss");

    private final HttpServer server;
    private final Clock clock;
    private final Predicate<Instant> isOpen;
    private final String user;
    private final String password;

    /**
     * Opens it on a free port.
     *
     * @param isOpen whether the door is open at a time
     */
    public SimulatedCamera(Clock clock, Predicate<Instant> isOpen, String user, String password) throws IOException {
        this.clock = clock;
        this.isOpen = isOpen;
        this.user = user;
        this.password = password;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/door.jpg", this::answer);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
    }

    /** Where its picture is. */
    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort() + "/door.jpg";
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            String given = exchange.getRequestHeaders().getFirst("Authorization");
            if (given == null || !isRight(given, exchange.getRequestMethod())) {
                exchange.getResponseHeaders()
                        .add(
                                "WWW-Authenticate",
                                "Digest realm=\"" + REALM + "\", nonce=\"" + NONCE + "\", qop=\"auth\", algorithm=MD5");
                exchange.sendResponseHeaders(401, -1);
                return;
            }
            byte[] picture = picture(clock.instant());
            exchange.getResponseHeaders().add("Content-Type", "image/jpeg");
            exchange.sendResponseHeaders(200, picture.length);
            exchange.getResponseBody().write(picture);
        }
    }

    /** RFC 7616, 3.4.1. */
    private boolean isRight(String given, String method) {
        String ha1 = md5(user + ":" + REALM + ":" + password);
        String ha2 = md5(method + ":" + field(given, "uri"));
        String expected =
                md5(ha1 + ":" + NONCE + ":" + field(given, "nc") + ":" + field(given, "cnonce") + ":auth:" + ha2);
        return given.startsWith("Digest ")
                && field(given, "username").equals(user)
                && field(given, "nonce").equals(NONCE)
                && field(given, "response").equals(expected);
    }

    private static String field(String header, String name) {
        Matcher fields = FIELD.matcher(header);
        while (fields.find()) {
            if (fields.group(1).equals(name)) {
                return fields.group(2);
            }
        }
        return "";
    }

    private static String md5(String text) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("MD5").digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private byte[] picture(Instant now) throws IOException {
        BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D draw = image.createGraphics();
        draw.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        wall(draw);
        if (isOpen.test(now)) {
            openDoor(draw);
        } else {
            shutDoor(draw);
        }
        draw.setFont(new Font(Font.MONOSPACED, Font.PLAIN, 16));
        draw.setColor(Color.WHITE);
        draw.drawString("Cold store  " + WRITTEN.format(now.atZone(ZoneId.systemDefault())), 12, HEIGHT - 12);
        draw.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "jpeg", out);
        return out.toByteArray();
    }

    private static void wall(Graphics2D draw) {
        draw.setColor(new Color(0x6d7377));
        draw.fillRect(0, 0, WIDTH, HEIGHT);
        draw.setColor(new Color(0x5d6266));
        for (int x = 0; x < WIDTH; x += 64) {
            draw.drawLine(x, 0, x, 270);
        }
        draw.setColor(new Color(0x4a4740));
        draw.fillRect(0, 270, WIDTH, HEIGHT - 270);
        draw.setColor(new Color(0xc9a227));
        draw.setStroke(new BasicStroke(4));
        draw.drawLine(0, 300, WIDTH, 300);
    }

    private static void shutDoor(Graphics2D draw) {
        draw.setColor(new Color(0xd9dcdd));
        draw.fillRect(230, 70, 170, 200);
        draw.setColor(new Color(0x8e9497));
        draw.setStroke(new BasicStroke(5));
        draw.drawRect(230, 70, 170, 200);
        draw.fillRect(376, 160, 12, 34);
    }

    private static void openDoor(Graphics2D draw) {
        draw.setColor(new Color(0xbfe0ee));
        draw.fillRect(230, 70, 170, 200);
        draw.setColor(new Color(0x7d98a6));
        for (int shelf = 110; shelf < 270; shelf += 40) {
            draw.fillRect(245, shelf, 140, 6);
            for (int box = 255; box < 370; box += 38) {
                draw.fillRect(box, shelf - 22, 28, 22);
            }
        }
        // The leaf, turned to the wall.
        draw.setColor(new Color(0xd9dcdd));
        draw.fillPolygon(new int[] {400, 450, 450, 400}, new int[] {70, 52, 290, 270}, 4);
        draw.setColor(new Color(0x8e9497));
        draw.setStroke(new BasicStroke(5));
        draw.drawRect(230, 70, 170, 200);
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
