package org.openpasture.client;

import java.net.URI;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.outlet.OutletView;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.quantity.Quantity;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Outlets: ways out by which readings and alerts are passed on as they come. */
@Command(
        name = "outlets",
        mixinStandardHelpOptions = true,
        description =
                "Ways out: readings and alerts that are passed on to addresses and topics; how each goes, and what waits.")
final class OutletCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode outlets = service.api().get("api/v1/outlets");
        if (service.printedJson(outlets)) {
            return;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable("Outlet", "Where to", "What", "State", "Passed on", "Last", "Waiting");
        outlets.forEach(one -> table.row(
                one.path("name").asString(),
                one.path("address").asString(),
                what(one),
                one.path("state").asString(),
                one.path("passed").asString(),
                Words.age(one.path("passedAt"), now),
                one.path("waiting").asString()));
        service.out().print(table.isEmpty() ? "No outlets yet. Make one with 'pasture outlets add'.\n" : table.text());
        outlets.forEach(one -> {
            if (!one.path("state").asString().equals("up")
                    || one.path("refused").asInt() > 0) {
                service.out()
                        .println("\n" + one.path("name").asString() + ": "
                                + one.path("reason").asString());
            }
        });
    }

    private static String what(JsonNode outlet) {
        boolean readings = outlet.path("readings").asBoolean();
        return (readings ? "readings" : "")
                + (readings && outlet.path("alerts").asBoolean() ? ", " : "")
                + (outlet.path("alerts").asBoolean() ? "alerts" : "")
                + (outlet.path("lifeSignMinutes").isNumber()
                        ? " life sign every " + outlet.path("lifeSignMinutes").asString() + " min"
                        : "");
    }

    private static String id(Service service, String meant) {
        return Service.pick(service.api().get("api/v1/outlets"), meant, "outlet")
                .path("id")
                .asString();
    }

    /** Where to: one of these. */
    static final class To {
        @Option(names = "--post", paramLabel = "URL", description = "An address that is posted to.")
        private @Nullable URI post;

        @Option(
                names = "--mqtt",
                paramLabel = "URL,TOPIC",
                description = "A topic of a broker elsewhere: mqtts://host:8883,harrow/{point}.")
        private @Nullable String mqtt;

        @Option(
                names = "--broker",
                paramLabel = "TOPIC",
                description =
                        "A topic of the broker inside the service; {point} stands for place and name of the point.")
        private @Nullable String broker;

        private Destination destination() {
            if (post != null) {
                return new Destination.HttpPost(post, null);
            }
            if (mqtt == null) {
                return new Destination.OwnTopic(String.valueOf(broker), null);
            }
            String[] parts = mqtt.split(",", 2);
            return new Destination.MqttTopic(URI.create(parts[0]), parts.length < 2 ? "" : parts[1], null, null);
        }
    }

    /** What goes by an outlet and how. Where one is changed, options left out stay unchanged. */
    static final class What {
        @Option(
                names = "--place",
                paramLabel = "PLACE",
                description = "Only what belongs to this place; may be given again.")
        private @Nullable List<String> places;

        @Option(
                names = "--quantity",
                paramLabel = "NAME",
                description = "Only readings of this quantity; may be given again.")
        private @Nullable List<String> quantities;

        @Option(names = "--readings", negatable = true, description = "Pass on readings, or do not.")
        private @Nullable Boolean readings;

        @Option(names = "--alerts", negatable = true, description = "Pass on alerts, or do not.")
        private @Nullable Boolean alerts;

        @Option(
                names = "--life-sign",
                paramLabel = "MINUTES",
                description = "Say every so many minutes that the service lives; 0 for never.")
        private @Nullable Integer lifeSign;

        @Option(names = "--senml", negatable = true, description = "Readings as SenML instead of JSON.")
        private @Nullable Boolean senml;

        @Option(
                names = "--retained",
                negatable = true,
                description = "The broker keeps the last value for later subscribers (retain).")
        private @Nullable Boolean retained;

        @Option(names = "--user", paramLabel = "NAME", description = "To sign in to a broker elsewhere.")
        private @Nullable String user;

        @Option(
                names = "--allow-private",
                negatable = true,
                description = "The address may lie in the service's machine or the networks around it.")
        private @Nullable Boolean allowPrivate;

        @Option(
                names = "--secret",
                paramLabel = "NAME=VALUE",
                description =
                        "A header, signing-key=… to have posts signed, or password=… of a broker; encrypted, never shown again.")
        private @Nullable Map<String, String> secrets;

        OutletRequest request(
                Service to, String name, String siteId, Destination destination, @Nullable OutletView was) {
            Destination there =
                    switch (destination) {
                        case Destination.HttpPost post ->
                            new Destination.HttpPost(post.url(), or(allowPrivate, post.allowPrivate()));
                        case Destination.MqttTopic topic ->
                            new Destination.MqttTopic(
                                    topic.url(),
                                    topic.topic(),
                                    or(user, topic.username()),
                                    or(retained, topic.retained()));
                        case Destination.OwnTopic topic ->
                            new Destination.OwnTopic(topic.topic(), or(retained, topic.retained()));
                    };
            return new OutletRequest(
                    name,
                    siteId,
                    there,
                    places == null
                            ? was == null ? null : was.placeIds()
                            : places.stream()
                                    .map(place -> PlaceCommands.id(to, place))
                                    .toList(),
                    quantities == null
                            ? was == null ? null : was.quantities()
                            : quantities.stream()
                                    .map(Quantity::of)
                                    .collect(Collectors.toCollection(LinkedHashSet::new)),
                    readings == null ? was == null || was.readings() : readings,
                    alerts == null ? was == null || was.alerts() : alerts,
                    senml == null
                            ? was == null ? Outlet.Form.JSON : was.form()
                            : senml ? Outlet.Form.SENML : Outlet.Form.JSON,
                    secrets,
                    lifeSign == null ? was == null ? null : was.lifeSignMinutes() : lifeSign == 0 ? null : lifeSign);
        }

        private static <T> @Nullable T or(@Nullable T told, @Nullable T was) {
            return told == null ? was : told;
        }
    }

    @Command(name = "add", mixinStandardHelpOptions = true, description = "Make an outlet.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--site", paramLabel = "SITE", required = true, description = "Whose outlet it is.")
                    String site,
            @ArgGroup(multiplicity = "1") To where,
            @Mixin What what) {
        JsonNode made = to.api()
                .post("api/v1/outlets", what.request(to, name, PlaceCommands.id(to, site), where.destination(), null));
        return made(to, "Made ", made);
    }

    private static int made(Service to, String how, JsonNode outlet) {
        if (!to.printedJson(outlet)) {
            String name = outlet.path("name").asString();
            to.out()
                    .println(how + name + ": " + outlet.path("address").asString()
                            + ". Try it with 'pasture outlets try \"" + name + "\"'.");
        }
        return 0;
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description =
                    "Change an outlet while it runs. Options left out stay unchanged; what waits goes to the new destination.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "OUTLET", description = "Name or id.") String outlet,
            @Option(names = "--name", paramLabel = "NAME", description = "Another name.") @Nullable String name,
            @ArgGroup @Nullable To where,
            @Mixin What what) {
        OutletView was = to.api().get("api/v1/outlets/" + id(to, outlet), OutletView.class);
        Destination destination = where == null
                ? was.destination()
                : InletSource.over(was.destination(), where.destination(), Destination.class);
        return made(
                to,
                "Changed ",
                to.api()
                        .put(
                                "api/v1/outlets/" + was.id(),
                                what.request(to, name == null ? was.name() : name, was.siteId(), destination, was)));
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description = "Send a message that says that it is a trial, and show what the outside answers.")
    int attempt(@Mixin Service to, @Parameters(paramLabel = "OUTLET", description = "Name or id.") String outlet) {
        JsonNode answer = to.api().post("api/v1/outlets/" + id(to, outlet) + "/try", Map.of());
        if (!to.printedJson(answer)) {
            to.out().println(answer.path("answer").asString());
        }
        return 0;
    }

    @Command(
            name = "pause",
            mixinStandardHelpOptions = true,
            description = "Send nothing by an outlet until it is resumed; what comes waits.")
    int pause(@Mixin Service to, @Parameters(paramLabel = "OUTLET", description = "Name or id.") String outlet) {
        return told(to, to.api().post("api/v1/outlets/" + id(to, outlet) + "/pause", Map.of()));
    }

    @Command(name = "resume", mixinStandardHelpOptions = true, description = "Go on with a paused outlet.")
    int resume(@Mixin Service to, @Parameters(paramLabel = "OUTLET", description = "Name or id.") String outlet) {
        return told(to, to.api().post("api/v1/outlets/" + id(to, outlet) + "/resume", Map.of()));
    }

    private static int told(Service to, JsonNode outlet) {
        if (!to.printedJson(outlet)) {
            to.out()
                    .println(outlet.path("name").asString() + " is "
                            + outlet.path("state").asString() + "; "
                            + outlet.path("waiting").asString() + " wait.");
        }
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an outlet, and what waits for it.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "OUTLET", description = "Name or id.") String outlet) {
        to.api().delete("api/v1/outlets/" + id(to, outlet));
        to.out().println("Removed.");
        return 0;
    }
}
