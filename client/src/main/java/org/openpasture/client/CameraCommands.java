package org.openpasture.client;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.camera.CameraRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Cameras whose pictures can stand on dashboards. */
@Command(
        name = "cameras",
        mixinStandardHelpOptions = true,
        description = "Cameras whose pictures stand on dashboards beside readings.")
final class CameraCommands implements Runnable {
    private static final String PATH = "api/v1/cameras";

    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode all = service.api().get(PATH);
        if (service.printedJson(all)) {
            return;
        }
        TextTable table = new TextTable("Camera", "Place", "Every", "Address", "Problem");
        all.forEach(one -> table.row(
                one.path("name").asString(),
                one.path("placeName").asString(),
                one.path("everySeconds").asString() + " s",
                one.path("address").asString(""),
                one.path("problem").asString("")));
        service.out()
                .print(
                        table.isEmpty()
                                ? "No cameras yet. An owner adds them: pasture cameras add NAME --place PLACE --address URL\n"
                                : table.text());
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = {
                "Set up a camera, for owners. Its password is asked for, or taken from PASTURE_CAMERA_PASSWORD.",
                "Everyone with access to its place can see its picture."
            })
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME", description = "What it is called.") String name,
            @Option(names = "--place", required = true, paramLabel = "PLACE", description = "What it looks at.")
                    String place,
            @Option(
                            names = "--address",
                            required = true,
                            paramLabel = "URL",
                            description = "The address of one picture (JPEG or PNG).")
                    URI address,
            @Option(names = "--user", paramLabel = "USER", description = "With which it is signed in to.") @Nullable
                    String user,
            @Option(
                            names = "--every",
                            paramLabel = "SECONDS",
                            description = "How old a picture may become; 10 by default.")
                    @Nullable
                    Integer every) {
        CameraRequest request =
                new CameraRequest(name, PlaceCommands.id(to, place), address, user, password(user), every);
        JsonNode made = to.api().post(PATH, request);
        if (!to.printedJson(made)) {
            to.out()
                    .println("Added " + made.path("name").asString()
                            + ". To see whether it answers: pasture cameras picture \""
                            + made.path("name").asString() + "\" -o picture.jpg");
        }
        return 0;
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description =
                    "Give a camera another address, user or interval. With another address or user its password is "
                            + "asked for again.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--address", paramLabel = "URL", description = "Another address.") @Nullable URI address,
            @Option(names = "--user", paramLabel = "USER", description = "Another user.") @Nullable String user,
            @Option(names = "--every", paramLabel = "SECONDS", description = "Another interval.") @Nullable
                    Integer every) {
        JsonNode before = camera(to, name);
        String sameUser = before.path("user").isString() ? before.path("user").asString() : null;
        String kept = user == null ? sameUser : user;
        CameraRequest request = new CameraRequest(
                before.path("name").asString(),
                before.path("placeId").asString(),
                address == null ? URI.create(before.path("address").asString()) : address,
                kept,
                address == null && user == null ? null : password(kept),
                every == null ? Integer.valueOf(before.path("everySeconds").asInt()) : every);
        JsonNode changed =
                to.api().put(PATH + "/" + ApiClient.escape(before.path("id").asString()), request);
        if (!to.printedJson(changed)) {
            to.out().println(changed.path("name").asString() + " is changed.");
        }
        return 0;
    }

    @Command(name = "picture", mixinStandardHelpOptions = true, description = "Save the newest picture of a camera.")
    int picture(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(
                            names = {"-o", "--output"},
                            required = true,
                            paramLabel = "FILE",
                            description = "Where the picture is written.")
                    Path output)
            throws IOException {
        String id = camera(to, name).path("id").asString();
        to.download(PATH + "/" + ApiClient.escape(id) + "/picture", output);
        return 0;
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a camera that no dashboard shows, with its password.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed(PATH, name, "camera");
    }

    private static JsonNode camera(Service to, String name) {
        return Service.pick(to.api().get(PATH), name, "camera");
    }

    /** None where it asks for no user. */
    private static @Nullable String password(@Nullable String user) {
        return user == null
                ? null
                : AccountCommands.secret("PASTURE_CAMERA_PASSWORD", "Password of " + user + " at the camera: ");
    }
}
