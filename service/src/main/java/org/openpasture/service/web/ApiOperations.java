package org.openpasture.service.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.tags.Tag;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.stereotype.Component;

/**
 * Makes the description of the API read like a manual: each operation has a name of its own that tells what it is, a
 * subject, a sentence (from the Javadoc of its method, else from its address), and the problems that it may answer.
 */
@Component
class ApiOperations implements OpenApiCustomizer {
    private static final Set<String> OPEN =
            Set.of("/api/v1/setup", "/api/v1/setup/recovery", "/api/v1/session", "/api/v1/invitations/taken-up");
    private static final Map<PathItem.HttpMethod, String> VERBS = Map.of(
            PathItem.HttpMethod.GET, "get",
            PathItem.HttpMethod.POST, "post",
            PathItem.HttpMethod.PUT, "change",
            PathItem.HttpMethod.DELETE, "remove");
    private static final Map<Integer, String> PROBLEMS = new TreeMap<>(Map.of(
            400, "It cannot be read, or says what cannot be.",
            401, "Nobody is signed in, or the sign-in has ended.",
            403, "The reader may see it, but not do this.",
            404, "There is no such thing, or the reader may not know of it.",
            409, "It clashes with what is there.",
            412, "It was changed meanwhile (If-Match).",
            413, "It is longer than what is taken.",
            507, "Nothing can be written now; nothing was changed."));

    @Override
    public void customise(OpenAPI api) {
        api.getComponents().addSchemas("Problem", problem());
        api.getPaths().forEach((path, item) -> item.readOperationsMap()
                .forEach((method, operation) -> describe(path, method, operation)));
        api.setTags(api.getPaths().values().stream()
                .flatMap(item -> item.readOperations().stream())
                .flatMap(operation -> operation.getTags().stream())
                .distinct()
                .sorted()
                .map(tag -> new Tag().name(tag))
                .toList());
    }

    /** RFC 9457, with what to do. */
    private static Schema<?> problem() {
        ObjectSchema schema = new ObjectSchema();
        schema.setDescription("A refusal (RFC 9457): a stable type, one sentence, and what to do.");
        schema.addProperty("type", new StringSchema().example("urn:open-pasture:problem:conflict"));
        schema.addProperty("title", new StringSchema());
        schema.addProperty("status", new io.swagger.v3.oas.models.media.IntegerSchema());
        schema.addProperty("detail", new StringSchema().description("What is wrong, in one sentence."));
        schema.addProperty("instance", new StringSchema());
        schema.addProperty("todo", new StringSchema().description("What to do about it."));
        return schema;
    }

    private static void describe(String path, PathItem.HttpMethod method, Operation operation) {
        List<String> steps = Arrays.stream(path.split("/")).skip(3).toList();
        operation.setOperationId(name(method, steps));
        operation.setTags(List.of(steps.isEmpty() ? "service" : steps.getFirst()));
        if (operation.getSummary() == null || operation.getSummary().isBlank()) {
            operation.setSummary(sentence(method, steps));
        }
        boolean changes = method != PathItem.HttpMethod.GET;
        List<Integer> statuses = new ArrayList<>(List.of(400));
        if (!OPEN.contains(path) && !path.startsWith("/api/v1/shared")) {
            statuses.addAll(List.of(401, 403));
        }
        if (path.contains("{")) {
            statuses.add(404);
        }
        if (changes) {
            statuses.addAll(List.of(409, 413, 507));
        }
        if (changes && method != PathItem.HttpMethod.POST) {
            statuses.add(412);
        }
        for (int status : statuses) {
            if (!operation.getResponses().containsKey(Integer.toString(status))) {
                operation
                        .getResponses()
                        .addApiResponse(
                                Integer.toString(status),
                                new ApiResponse()
                                        .description(PROBLEMS.get(status))
                                        .content(new Content()
                                                .addMediaType(
                                                        "application/problem+json",
                                                        new MediaType()
                                                                .schema(new Schema<>()
                                                                        .$ref("#/components/schemas/Problem")))));
            }
        }
    }

    /** By what it does and where: "getAlertsById", "postDevicesByIdCommands". */
    private static String name(PathItem.HttpMethod method, List<String> steps) {
        StringBuilder name =
                new StringBuilder(VERBS.getOrDefault(method, method.name().toLowerCase(Locale.ROOT)));
        for (String step : steps) {
            boolean variable = step.startsWith("{");
            name.append(variable ? "By" : "");
            for (String word : step.replaceAll("[{}]", "").split("-")) {
                name.append(word.substring(0, 1).toUpperCase(Locale.ROOT)).append(word.substring(1));
            }
        }
        return name.toString();
    }

    private static String sentence(PathItem.HttpMethod method, List<String> steps) {
        List<String> words = steps.stream()
                .filter(step -> !step.startsWith("{"))
                .map(step -> step.replace('-', ' '))
                .toList();
        String subject = String.join(", ", words);
        boolean one = !steps.isEmpty() && steps.getLast().startsWith("{");
        return (switch (method) {
                            case GET -> one ? "One of the " : "Looks at ";
                            case POST -> "Makes or does: ";
                            case PUT -> "Changes: ";
                            case DELETE -> "Removes or ends: ";
                            default -> method.name() + " ";
                        }
                        + subject)
                .strip();
    }
}
