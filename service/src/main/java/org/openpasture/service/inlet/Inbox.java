package org.openpasture.service.inlet;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InboxView;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.framing.Splitter;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Opener;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.engine.inlet.InletTokens;
import org.openpasture.engine.inlet.MessageIntake;
import org.openpasture.engine.inlet.Taken;
import org.openpasture.engine.radio.CommandDesk;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.KeptAnswer;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.servlet.HandlerExceptionResolver;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.handler.SimpleUrlHandlerMapping;
import tools.jackson.databind.json.JsonMapper;

/**
 * The address that devices, bridges and hubs post to: {@code /in} with the token in a header, or {@code /in/TOKEN} for
 * those that can send to an address only. Answered when all that is kept is on disk. No controller like the others,
 * since thousands may post in a second, and finding a controller's method and its arguments took as long as all that is
 * done here.
 */
@Component
class Inbox implements HttpRequestHandler {
    private static final int LONGEST = 2 << 20;
    private static final int LONGEST_UNPACKED = 16 << 20;
    private static final int LONGEST_KEY = 200;
    private final RegistryStore registry;
    private final InletTokens tokens;
    private final MessageIntake intake;
    private final InletStates states;
    private final TelemetryStore telemetry;
    private final Clock clock;
    private final CommandDesk commands;
    private final JsonMapper mapper;
    private final HandlerExceptionResolver problems;
    private final BodyRoom room = new BodyRoom(Runtime.getRuntime().maxMemory(), LONGEST_UNPACKED);
    /** Posts with an idempotency key that are being taken now, by inlet and key. */
    private final Map<String, Taking> taking = new ConcurrentHashMap<>();

    /**
     * A post that is being taken, or was just now.
     *
     * @param bodyHash SHA-256 of its body
     */
    private record Taking(byte[] bodyHash, CompletableFuture<InboxView> answer) {}

    Inbox(
            RegistryStore registry,
            InletTokens tokens,
            MessageIntake intake,
            InletStates states,
            TelemetryStore telemetry,
            Clock clock,
            CommandDesk commands,
            JsonMapper mapper,
            @Qualifier("handlerExceptionResolver") HandlerExceptionResolver problems) {
        this.registry = registry;
        this.tokens = tokens;
        this.intake = intake;
        this.states = states;
        this.telemetry = telemetry;
        this.clock = clock;
        this.commands = commands;
        this.mapper = mapper;
        this.problems = problems;
    }

    /** Where it is found; before the controllers are looked through. */
    @Configuration
    static class Way {
        @Bean
        SimpleUrlHandlerMapping inboxMapping(Inbox inbox) {
            return new SimpleUrlHandlerMapping(Map.of("/in", inbox, "/in/{token}", inbox), Ordered.HIGHEST_PRECEDENCE);
        }
    }

    @Override
    public void handleRequest(HttpServletRequest request, HttpServletResponse response)
            throws ServletException, IOException {
        response.setHeader("X-Content-Type-Options", "nosniff");
        try {
            if (!request.getMethod().equals("POST")) {
                throw new HttpRequestMethodNotSupportedException(request.getMethod(), List.of("POST"));
            }
            InboxView view = post(token(request), request);
            byte[] answer = mapper.writeValueAsBytes(view);
            response.setContentType(MediaType.APPLICATION_JSON_VALUE);
            response.setContentLength(answer.length);
            response.getOutputStream().write(answer);
        } catch (RuntimeException | ServletException | IOException e) {
            if (problems.resolveException(request, response, null, e) == null) {
                throw e;
            }
        }
    }

    private static String token(HttpServletRequest request) {
        if (request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> variables
                && variables.get("token") instanceof String token) {
            return token;
        }
        return Optional.ofNullable(request.getHeader("Authorization"))
                .map(Tokens::ofHeader)
                .orElseThrow(() -> Problem.unauthorised("The inlet's token is missing: Authorization: Bearer …"));
    }

    private InboxView post(String token, HttpServletRequest request) throws IOException {
        Registry now = registry.now();
        List<String> inboxes = now.all(Inlet.class).stream()
                .filter(inlet -> inlet.source() instanceof Source.HttpInbox)
                .map(Inlet::id)
                .toList();
        Inlet inlet = tokens.inletOf(token, inboxes)
                .flatMap(id -> now.find(Inlet.class, id))
                .orElseThrow(() -> Problem.unauthorised("No inlet has this token, or another was made since."));
        if (inlet.paused()) {
            throw Problem.unavailable("The inlet '" + inlet.name() + "' is paused.", "Send it again later.");
        }
        try (BodyRoom.Place place = room.take(BodyRoom.most(request, isPacked(request), LONGEST, LONGEST_UNPACKED))) {
            return post(inlet, request);
        }
    }

    private static boolean isPacked(HttpServletRequest request) {
        return "gzip".equalsIgnoreCase(request.getHeader("Content-Encoding"));
    }

    private InboxView post(Inlet inlet, HttpServletRequest request) throws IOException {
        String key = request.getHeader("Idempotency-Key");
        if (key == null) {
            return take(inlet, request, body(inlet, request, request.getRemoteAddr()), answer -> List.of())
                    .join();
        }
        if (key.length() > LONGEST_KEY) {
            throw Problem.invalid("an Idempotency-Key has " + LONGEST_KEY + " characters at most");
        }
        byte[] body = body(inlet, request, request.getRemoteAddr());
        byte[] hash = sha256(body);
        Taking mine = new Taking(hash, new CompletableFuture<>());
        Taking before = taking.putIfAbsent(inlet.id() + " " + key, mine);
        if (before != null) {
            requireSame(before.bodyHash(), hash, key);
            return before.answer().join();
        }
        try {
            Optional<KeptAnswer> kept = telemetry.inboxAnswers().find(inlet.id(), key);
            if (kept.isPresent()) {
                requireSame(kept.get().bodyHash(), hash, key);
                InboxView again = mapper.readValue(kept.get().answer(), InboxView.class);
                mine.answer().complete(again);
                return again;
            }
            InboxView view = take(
                            inlet,
                            request,
                            body,
                            answer -> List.of(new KeptAnswer(
                                    inlet.id(), key, hash, mapper.writeValueAsString(answer), clock.instant())))
                    .join();
            mine.answer().complete(view);
            return view;
        } finally {
            if (!mine.answer().isDone()) {
                mine.answer()
                        .completeExceptionally(Problem.conflict(
                                "The same message was being taken and could not be kept.", "Send it again."));
            }
            // From now on the answer is found on disk; if nothing was kept, who sends it again is heard again.
            taking.remove(inlet.id() + " " + key, mine);
        }
    }

    private static void requireSame(byte[] before, byte[] now, String key) {
        if (!MessageDigest.isEqual(before, now)) {
            throw Problem.unprocessable(
                    "The Idempotency-Key '" + key + "' was used for another message.",
                    "Send this message under a key of its own.");
        }
    }

    private static byte[] sha256(byte[] body) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(body);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("SHA-256 is part of every Java runtime", e);
        }
    }

    /**
     * Takes a post.
     *
     * @param answers what is kept together with it, made from the answer without what comes next
     */
    private CompletableFuture<InboxView> take(
            Inlet inlet, HttpServletRequest request, byte[] body, Function<InboxView, List<KeptAnswer>> answers) {
        String sender = request.getRemoteAddr();
        Map<String, String> names = new HashMap<>();
        Collections.list(request.getHeaderNames()).stream()
                .filter(name -> !name.equalsIgnoreCase("Authorization") && !name.equalsIgnoreCase("Cookie"))
                .forEach(name -> names.put(name.toLowerCase(Locale.ROOT), request.getHeader(name)));
        List<Splitter.Piece> pieces = inlet.framing().cut(body);
        if (pieces.isEmpty()) {
            throw Problem.invalid("the message is empty");
        }
        if (pieces.size() > Opener.MOST_ITEMS) {
            throw tooManyParts(pieces.size());
        }
        List<MessageIntake.Piece> whole = new ArrayList<>();
        List<Taken> lost = new ArrayList<>();
        for (Splitter.Piece piece : pieces) {
            switch (piece) {
                case Splitter.Piece.Whole(byte[] bytes, byte[] payload) ->
                    whole.add(new MessageIntake.Piece(bytes, new Arrived(payload, sender, names)));
                case Splitter.Piece.Lost(byte[] bytes, String reason) -> {
                    states.lost(inlet.id(), sender, reason);
                    lost.add(new Taken.Refused(bytes, null, reason));
                }
            }
        }
        return intake.takeAll(inlet, whole, kept -> answers.apply(view(kept, lost, null)))
                .thenCompose(kept -> next(inlet, kept.receipts()).thenApply(next -> view(kept, lost, next)));
    }

    private static Problem tooManyParts(int parts) {
        return Problem.tooLarge(
                "The message has " + parts + " parts; " + Opener.MOST_ITEMS + " are taken at once.",
                "Send it in several messages. Nothing of it was kept.");
    }

    /** What those who called in by this message should do next; completes with null for nothing. */
    private CompletableFuture<InboxView.@Nullable Next> next(Inlet inlet, List<MessageIntake.Receipt> receipts) {
        Registry now = registry.now();
        boolean tells = inlet.source() instanceof Source.HttpInbox(Boolean sensors) && Boolean.TRUE.equals(sensors);
        List<String> sensors = tells
                ? now.devicesOf(inlet.id()).stream()
                        .map(device -> device.identity().address())
                        .sorted()
                        .toList()
                : null;
        Map<String, Taken.Read> called = new LinkedHashMap<>();
        receipts.stream().flatMap(receipt -> receipt.parts().stream()).forEach(part -> {
            if (part instanceof Taken.Read read
                    && commands.isSomethingWanted(read.device().id())) {
                called.put(read.device().id(), read);
            }
        });
        Map<String, Map<String, Double>> settings = new LinkedHashMap<>();
        List<CompletableFuture<Void>> given = called.values().stream()
                .map(read -> commands.contact(read.device().id(), reported(now, read))
                        .thenAccept(commands -> {
                            Map<String, Double> wanted = new LinkedHashMap<>();
                            commands.forEach(command -> {
                                if (command.setting() != null && command.value() != null) {
                                    wanted.put(command.setting(), command.value());
                                }
                            });
                            if (!wanted.isEmpty()) {
                                synchronized (settings) {
                                    settings.put(read.device().identity().address(), wanted);
                                }
                            }
                        }))
                .toList();
        return CompletableFuture.allOf(given.toArray(CompletableFuture[]::new))
                .thenApply(
                        done -> sensors == null && settings.isEmpty() ? null : new InboxView.Next(sensors, settings));
    }

    /** What a device says that its settings are. */
    private static Map<String, Double> reported(Registry now, Taken.Read read) {
        Map<String, Double> reported = new HashMap<>();
        now.find(DeviceModel.class, read.device().modelId())
                .map(DeviceModel::settings)
                .orElse(List.of())
                .forEach(setting -> read.values().stream()
                        .filter(value -> value.channel().equals(setting.reportingChannel()))
                        .forEach(value -> reported.put(setting.name(), value.value())));
        return reported;
    }

    private byte[] body(Inlet inlet, HttpServletRequest request, String sender) throws IOException {
        boolean packed = isPacked(request);
        try (InputStream raw = request.getInputStream();
                InputStream in = packed ? new GZIPInputStream(raw) : raw) {
            int most = packed ? LONGEST_UNPACKED : LONGEST;
            byte[] body = in.readNBytes(most + 1);
            if (body.length > most) {
                states.lost(inlet.id(), sender, "a message is longer than " + most + " bytes");
                throw Problem.tooLarge("The message is longer than " + most + " bytes.", "Send it in several parts.");
            }
            return body;
        } catch (ZipException e) {
            throw Problem.invalid("the message says that it is packed by gzip, but is not: " + e.getMessage());
        } catch (EOFException e) {
            throw Problem.invalid("the message is packed by gzip and was cut off before its end");
        }
    }

    private static InboxView view(MessageIntake.Kept kept, List<Taken> lost, InboxView.@Nullable Next next) {
        List<MessageIntake.Receipt> receipts = new ArrayList<>(kept.receipts());
        receipts.add(new MessageIntake.Receipt(lost, 0));
        int taken = 0;
        int number = 0;
        List<InboxView.NotTaken> not = new ArrayList<>();
        for (MessageIntake.Receipt receipt : receipts) {
            for (Taken part : receipt.parts()) {
                number++;
                @Nullable
                String reason =
                        switch (part) {
                            case Taken.Read read ->
                                holdsNothing(read) && read.frame().reason() != null
                                        ? read.frame().reason()
                                        : null;
                            case Taken.OfStranger stranger ->
                                "no device at this inlet has this address; it is listed as heard and can be admitted";
                            case Taken.Refused(byte[] bytes, var device, String why) -> why;
                        };
                if (reason == null) {
                    taken++;
                } else {
                    not.add(new InboxView.NotTaken(number, address(part), reason));
                }
            }
        }
        int thinned = receipts.stream().mapToInt(MessageIntake.Receipt::thinned).sum();
        if (taken == 0 && !not.isEmpty() && not.stream().allMatch(one -> one.address() == null)) {
            throw Problem.unprocessable(
                    not.getFirst().reason() + ".", "Try the message in the console, on the inlet's page.");
        }
        return new InboxView(taken - thinned, thinned, kept.replaced(), not, next);
    }

    /** Whether nothing of it can be kept: there is no number in it, or none that is finite. */
    private static boolean holdsNothing(Taken.Read read) {
        return read.values().stream().noneMatch(value -> Double.isFinite(value.value()))
                && read.frame().waveforms().isEmpty();
    }

    private static @Nullable String address(Taken part) {
        return switch (part) {
            case Taken.Read read -> read.item().address();
            case Taken.OfStranger(Item.Opened item) -> item.address();
            case Taken.Refused refused -> null;
        };
    }
}
