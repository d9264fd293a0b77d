package org.openpasture.service.web;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.Discriminator;
import io.swagger.v3.oas.models.media.JsonSchema;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.stereotype.Component;

/**
 * Makes the schemas of the description of the API as exact as the records that they stand for: what may be null and
 * what is always there, of which kinds a thing of several kinds is, and a name of its own for each. Programs, the
 * console among them, have their types made from it.
 */
@Component
class ApiSchemas implements OpenApiCustomizer {
    private static final String AT = "#/components/schemas/";

    @Override
    public void customise(OpenAPI api) {
        new Completion(api).complete();
    }

    /** One description while it is completed; schemas are known by the full names of their classes until the end. */
    private static final class Completion {
        private final OpenAPI api;
        private final Map<String, Schema<?>> schemas = new LinkedHashMap<>();
        private final Map<String, Class<?>> classes = new HashMap<>();

        Completion(OpenAPI api) {
            this.api = api;
            api.getComponents().getSchemas().forEach((name, schema) -> {
                schemas.put(name, schema);
                classOf(name).ifPresent(type -> classes.put(name, type));
            });
        }

        void complete() {
            classes.forEach((name, type) -> kinds(name, type));
            Set<String> asked = asked();
            classes.forEach((name, type) -> {
                if (type.isRecord()) {
                    record(schema(name), type, asked.contains(name));
                }
            });
            rename();
        }

        private Schema<?> schema(String name) {
            return Optional.ofNullable(schemas.get(name)).orElseThrow();
        }

        /** A thing of several kinds is one of them, told by its kind. */
        private void kinds(String name, Class<?> type) {
            JsonTypeInfo told = type.getAnnotation(JsonTypeInfo.class);
            JsonSubTypes known = type.getAnnotation(JsonSubTypes.class);
            if (told == null || known == null) {
                return;
            }
            Schema<?> one = new JsonSchema();
            Discriminator discriminator = new Discriminator().propertyName(told.property());
            for (JsonSubTypes.Type kind : known.value()) {
                String full = kind.value().getCanonicalName();
                one.addOneOfItem(new JsonSchema().$ref(AT + full));
                discriminator.mapping(kind.name(), AT + full);
                schemas.put(full, ofKind(schema(full), told, kind));
            }
            schemas.put(name, one.discriminator(discriminator));
        }

        /** Without the part that it has from what it is a kind of; the kind that is usual need not be named. */
        private static Schema<?> ofKind(Schema<?> schema, JsonTypeInfo told, JsonSubTypes.Type kind) {
            Schema<?> own =
                    schema.getAllOf() == null ? schema : schema.getAllOf().getLast();
            Schema<?> whole = new JsonSchema().types(new LinkedHashSet<>(Set.of("object")));
            Schema<Object> name = new JsonSchema();
            name.addType("string");
            name.setEnum(List.of(kind.name()));
            whole.addProperty(told.property(), name);
            if (own.getProperties() != null) {
                own.getProperties().forEach(whole::addProperty);
            }
            if (kind.value() != told.defaultImpl()) {
                whole.addRequiredItem(told.property());
            }
            return whole;
        }

        /** What stands in the body of a request, or in a part of one, may be left out where it may be null. */
        private Set<String> asked() {
            Set<String> found = new HashSet<>();
            operations()
                    .filter(operation -> operation.getRequestBody() != null)
                    .forEach(
                            operation -> each(operation.getRequestBody().getContent(), schema -> reach(schema, found)));
            return found;
        }

        private void reach(Schema<?> from, Set<String> found) {
            visit(from, schema -> {
                String name = named(schema);
                if (name != null && schemas.containsKey(name) && found.add(name)) {
                    reach(schema(name), found);
                }
            });
        }

        private static void record(Schema<?> schema, Class<?> type, boolean asked) {
            if (schema.getProperties() == null) {
                return;
            }
            for (RecordComponent part : type.getRecordComponents()) {
                if (part.getAccessor().isAnnotationPresent(JsonUnwrapped.class)) {
                    record(schema, part.getType(), asked);
                    continue;
                }
                Schema<?> property = schema.getProperties().get(part.getName());
                if (property == null) {
                    continue;
                }
                if (part.getType().isAnnotationPresent(JsonSubTypes.class)) {
                    property = new JsonSchema().$ref(AT + part.getType().getCanonicalName());
                    schema.getProperties().put(part.getName(), property);
                }
                boolean nullable = part.getAnnotatedType().isAnnotationPresent(Nullable.class);
                if (nullable) {
                    schema.getProperties().put(part.getName(), orNull(property));
                }
                if (!nullable || !asked) {
                    schema.addRequiredItem(part.getName());
                }
            }
        }

        private static Schema<?> orNull(Schema<?> schema) {
            if (schema.get$ref() != null || schema.getOneOf() != null) {
                return new JsonSchema().anyOf(List.of(schema, new JsonSchema().types(Set.of("null"))));
            }
            schema.addType("null");
            if (schema.getEnum() != null) {
                withNull(schema);
            }
            return schema;
        }

        private static <T> void withNull(Schema<T> schema) {
            List<T> values = new ArrayList<>(schema.getEnum());
            values.add(null);
            schema.setEnum(values);
        }

        private void rename() {
            Map<String, String> names = names();
            Consumer<Schema<?>> renamed = schema -> {
                if (schema.get$ref() != null) {
                    schema.set$ref(names.getOrDefault(schema.get$ref(), schema.get$ref()));
                }
                if (schema.getDiscriminator() != null
                        && schema.getDiscriminator().getMapping() != null) {
                    schema.getDiscriminator().getMapping().replaceAll((kind, at) -> names.getOrDefault(at, at));
                }
            };
            operations().forEach(operation -> {
                if (operation.getRequestBody() != null) {
                    each(operation.getRequestBody().getContent(), schema -> visit(schema, renamed));
                }
                operation.getResponses().values().forEach(answer -> {
                    if (answer.getContent() != null) {
                        each(answer.getContent(), schema -> visit(schema, renamed));
                    }
                });
            });
            api.getComponents().setSchemas(new TreeMap<>());
            schemas.forEach((full, schema) -> {
                visit(schema, renamed);
                api.getComponents()
                        .addSchemas(names.getOrDefault(AT + full, AT + full).substring(AT.length()), schema);
            });
        }

        /** The short name of each class; of two alike, each with the name of its package. */
        private Map<String, String> names() {
            Map<String, Long> often = classes.values().stream()
                    .collect(Collectors.groupingBy(Completion::shortName, Collectors.counting()));
            Map<String, String> names = new HashMap<>();
            classes.forEach((full, type) -> {
                String name = shortName(type);
                String room = type.getPackageName().replaceFirst("^.*\\.", "");
                boolean alone = Long.valueOf(1).equals(often.get(name));
                names.put(
                        AT + full,
                        AT + (alone ? "" : room.substring(0, 1).toUpperCase(Locale.ROOT) + room.substring(1)) + name);
            });
            return names;
        }

        private static String shortName(Class<?> type) {
            Class<?> outer = type.getEnclosingClass();
            return (outer == null ? "" : shortName(outer).replaceFirst("(Controller|View|Answer)$", ""))
                    + type.getSimpleName();
        }

        private Stream<Operation> operations() {
            return api.getPaths().values().stream().flatMap(path -> path.readOperations().stream());
        }

        private static void each(Content content, Consumer<Schema<?>> action) {
            content.values().stream()
                    .filter(type -> type.getSchema() != null)
                    .forEach(type -> action.accept(type.getSchema()));
        }

        private static @Nullable String named(Schema<?> schema) {
            return schema.get$ref() == null ? null : schema.get$ref().substring(AT.length());
        }

        /** A schema and all that stand in it. */
        private static void visit(Schema<?> schema, Consumer<Schema<?>> action) {
            action.accept(schema);
            Stream.of(schema.getOneOf(), schema.getAnyOf(), schema.getAllOf())
                    .filter(some -> some != null)
                    .forEach(some -> some.forEach(one -> visit(one, action)));
            if (schema.getProperties() != null) {
                schema.getProperties().values().forEach(one -> visit(one, action));
            }
            if (schema.getItems() != null) {
                visit(schema.getItems(), action);
            }
            if (schema.getAdditionalProperties() instanceof Schema<?> more) {
                visit(more, action);
            }
        }

        /** The class of a full name, in which nested classes follow a dot. */
        private static Optional<Class<?>> classOf(String name) {
            String binary = name;
            while (true) {
                try {
                    return Optional.of(Class.forName(binary, false, ApiSchemas.class.getClassLoader()));
                } catch (ClassNotFoundException e) {
                    int dot = binary.lastIndexOf('.');
                    if (dot < 0) {
                        return Optional.empty();
                    }
                    binary = binary.substring(0, dot) + '$' + binary.substring(dot + 1);
                }
            }
        }
    }
}
