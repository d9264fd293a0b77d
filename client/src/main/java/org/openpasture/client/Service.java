package org.openpasture.client;

import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.StreamSupport;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.Progress;
import org.openpasture.client.output.ReadUnits;
import picocli.CommandLine;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The options that every command has: which service, and whether people or programs read the answer. */
final class Service {
    private static final JsonMapper PRETTY =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();
    static final String DEFAULT_ADDRESS = "http://127.0.0.1:8470";

    @Option(
            names = "--at",
            paramLabel = "ADDRESS",
            description = "The service, such as http://192.0.2.10:8470; else PASTURE_AT, else where you signed in.")
    private @Nullable String at;

    @Option(names = "--json", description = "Answer in JSON.")
    boolean json;

    @CommandLine.Spec(CommandLine.Spec.Target.MIXEE)
    private CommandLine.Model.CommandSpec spec;

    PrintWriter out() {
        return spec.commandLine().getOut();
    }

    PrintWriter err() {
        return spec.commandLine().getErr();
    }

    URI address() {
        String chosen = Optional.ofNullable(at)
                .or(() -> Surroundings.get("PASTURE_AT"))
                .or(() -> SignIn.load().map(SignIn::at))
                .orElse(DEFAULT_ADDRESS);
        return whole(chosen);
    }

    /** A client that is not signed in. */
    ApiClient anonymous() {
        return new ApiClient(address(), null);
    }

    /** A client that is; a token goes to nobody but the service that gave it. */
    ApiClient api() {
        return new ApiClient(address(), token());
    }

    private String token() {
        Optional<String> given = Surroundings.get("PASTURE_TOKEN");
        if (given.isPresent()) {
            Surroundings.get("PASTURE_AT").ifPresent(this::requireHere);
            return given.get();
        }
        SignIn signedIn = SignIn.load().orElseThrow(NotSignedIn::new);
        requireHere(signedIn.at());
        return signedIn.token();
    }

    private void requireHere(String itsService) {
        if (!whole(itsService).equals(address())) {
            // Whether anybody is there is said first: signing in would be of no use else.
            anonymous().get("api/v1/setup");
            throw new NotSignedIn(itsService, address().toString());
        }
    }

    private static URI whole(String address) {
        String full = address.contains("://") ? address : "http://" + address;
        return URI.create(full.endsWith("/") ? full : full + "/");
    }

    void print(JsonNode node) {
        out().println(PRETTY.writeValueAsString(node));
    }

    /** The units in which the reader reads values. */
    ReadUnits readUnits() {
        return new ReadUnits(api().get("api/v1/session/units"));
    }

    /** Prints JSON if it was asked for; says whether it did. */
    boolean printedJson(JsonNode node) {
        if (json) {
            print(node);
        }
        return json;
    }

    /** Downloads to a file, telling how far it is, or to the screen. */
    void download(String path, @Nullable Path file) throws IOException {
        if (file == null) {
            api().download(path, System.out);
            System.out.flush();
        } else {
            // What is there already stays until the new file is whole.
            Path part = file.resolveSibling(file.getFileName() + ".part");
            try (OutputStream to = new FileOutputStream(part.toFile())) {
                api().download(path, to, new Progress(err()));
            } catch (IOException | RuntimeException e) {
                Files.deleteIfExists(part);
                throw e;
            }
            Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
            err().println("Written to " + file + ".");
        }
    }

    /** Prints everything about one of a list. */
    int shown(String path, String name, String what) {
        JsonNode one = pick(api().get(path), name, what);
        print(api().get(path + "/" + one.path("id").asString()));
        return 0;
    }

    /** Removes one of a list. */
    int removed(String path, String name, String what) {
        JsonNode one = pick(api().get(path), name, what);
        String whole = one.path("name").asString(one.path("title").asString(""));
        if (whole.toLowerCase(Locale.ROOT).contains(name.toLowerCase(Locale.ROOT)) && !whole.equalsIgnoreCase(name)) {
            throw new IllegalArgumentException("to remove it, enter its full name: '" + whole + "'");
        }
        api().delete(path + "/" + one.path("id").asString());
        if (!printedJson(one)) {
            out().println("The " + what + " '" + whole + "' is removed.");
        }
        return 0;
    }

    /** The one entity in a list that is meant by an id, a number, or a part of its name. */
    static JsonNode pick(JsonNode list, String meant, String what, Function<JsonNode, String> name) {
        List<JsonNode> all = StreamSupport.stream(list.spliterator(), false).toList();
        List<JsonNode> exact = all.stream()
                .filter(node -> node.path("id").asString("").equals(meant)
                        || node.path("number").isNumber()
                                && node.path("number").asString().equals(meant)
                        || node.path("eui").asString("").equals(meant)
                        || node.path("address").asString("").equalsIgnoreCase(meant)
                        || name.apply(node).equalsIgnoreCase(meant)
                        || !place(node).isEmpty()
                                && (place(node) + "/" + name.apply(node))
                                        .equalsIgnoreCase(meant.replaceAll("\\s*/\\s*", "/")))
                .toList();
        List<JsonNode> found = !exact.isEmpty()
                ? exact
                : all.stream()
                        .filter(node ->
                                name.apply(node).toLowerCase(Locale.ROOT).contains(meant.toLowerCase(Locale.ROOT)))
                        .toList();
        if (found.isEmpty()) {
            throw new IllegalArgumentException("there is no " + what + " '" + meant + "'"
                    + Nearest.of(meant, all.stream().map(name).toList())
                            .map(near -> ". Did you mean '" + near + "'?")
                            .orElse(""));
        }
        if (found.size() > 1) {
            throw new IllegalArgumentException("'" + meant + "' could be "
                    + String.join(
                            ", ",
                            found.stream()
                                    .limit(5)
                                    .map(node -> toldApart(node, name.apply(node)))
                                    .toList())
                    + (found.size() > 5 ? " and more" : "")
                    + (found.stream().noneMatch(node -> place(node).isEmpty())
                            ? "; enter the number, or place/name"
                            : "; say more of the name, or the id"));
        }
        return found.getFirst();
    }

    /** Where something is; empty if it does not say. */
    private static String place(JsonNode node) {
        JsonNode path = node.path("path");
        return path.isEmpty() ? "" : path.get(path.size() - 1).asString();
    }

    private static String toldApart(JsonNode node, String name) {
        return node.path("number").isNumber() && !place(node).isEmpty()
                ? "'" + place(node) + "/" + name + "' (" + node.path("number").asString() + ")"
                : name;
    }

    static JsonNode pick(JsonNode list, String meant, String what) {
        return pick(list, meant, what, node -> node.path("name")
                .asString(node.path("title").asString("")));
    }
}
