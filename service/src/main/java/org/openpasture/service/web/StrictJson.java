package org.openpasture.service.web;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.LabelRequest;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.core.text.Text;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.BeanProperty;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.deser.DeserializationProblemHandler;
import tools.jackson.databind.deser.jdk.StringDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;

/**
 * What requests may say in JSON: no field that nobody reads, since a mistyped one would be lost in silence, and no
 * number beyond reason, since one that is infinite as a double would be kept and could never be judged.
 */
@Configuration
class StrictJson {
    /** Nothing that is measured, counted or limited here is greater. */
    private static final double GREATEST = 1e15;

    @Bean
    JsonMapperBuilderCustomizer strictness() {
        return builder -> builder.enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .addHandler(new IdOfTheAddress())
                .withConfigOverride(
                        List.class, lists -> lists.setNullHandling(JsonSetter.Value.forContentNulls(Nulls.FAIL)))
                .addModule(new SimpleModule("numbers within reason, text that can be shown")
                        .addDeserializer(boolean.class, new Flag())
                        .addDeserializer(String.class, new Shown())
                        .addDeserializer(Double.class, new Reasonable(false))
                        .addDeserializer(double.class, new Reasonable(true)));
    }

    /**
     * What was looked at is sent back changed, with the id that it has: the address says whose it is, so that the id in
     * the body is not used.
     */
    private static final class IdOfTheAddress extends DeserializationProblemHandler {
        @Override
        public boolean handleUnknownProperty(
                DeserializationContext context,
                JsonParser parser,
                @Nullable ValueDeserializer<?> deserializer,
                Object beanOrClass,
                String name) {
            if (!name.equals("id")) {
                return false;
            }
            parser.skipChildren();
            return true;
        }
    }

    /** Text in one form (NFC), and nothing that cannot be shown; of what a machine wrote, everything but NUL. */
    private static final class Shown extends StdScalarDeserializer<String> {
        private static final Set<Class<?>> BY_MACHINES = Set.of(LabelRequest.class, TrialRequest.class);
        private final boolean byMachine;

        Shown() {
            this(false);
        }

        private Shown(boolean byMachine) {
            super(String.class);
            this.byMachine = byMachine;
        }

        @Override
        public ValueDeserializer<?> createContextual(DeserializationContext context, @Nullable BeanProperty property) {
            return new Shown(property != null
                    && property.getMember() != null
                    && BY_MACHINES.contains(property.getMember().getDeclaringClass()));
        }

        @Override
        public @Nullable String deserialize(JsonParser parser, DeserializationContext context) {
            String text = StringDeserializer.instance.deserialize(parser, context);
            if (text == null) {
                return null;
            }
            return byMachine ? Text.raw(text) : Text.lines(text);
        }
    }

    /** One that is left out is not set. */
    private static final class Flag extends StdScalarDeserializer<Boolean> {
        Flag() {
            super(boolean.class);
        }

        @Override
        public Boolean deserialize(JsonParser parser, DeserializationContext context) {
            return _parseBooleanPrimitive(parser, context);
        }

        @Override
        public Boolean getNullValue(DeserializationContext context) {
            return false;
        }

        @Override
        public Object getAbsentValue(DeserializationContext context) {
            return false;
        }
    }

    private static final class Reasonable extends StdScalarDeserializer<Double> {
        private final boolean primitive;

        Reasonable(boolean primitive) {
            super(Double.class);
            this.primitive = primitive;
        }

        @Override
        public Double deserialize(JsonParser parser, DeserializationContext context) {
            double value = _parseDoublePrimitive(parser, context);
            if (!(Math.abs(value) <= GREATEST)) {
                throw new IllegalArgumentException("'" + parser.currentName() + "' is " + parser.getString()
                        + ", which is beyond all reason: numbers are at most 1e15.");
            }
            return value;
        }

        @Override
        public Object getNullValue(DeserializationContext context) {
            if (primitive) {
                throw new IllegalArgumentException("a number is missing");
            }
            return super.getNullValue(context);
        }
    }
}
