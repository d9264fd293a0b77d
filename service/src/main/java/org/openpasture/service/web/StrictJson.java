package org.openpasture.service.web;

import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
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
                .addModule(new SimpleModule("numbers within reason")
                        .addDeserializer(Double.class, new Reasonable(false))
                        .addDeserializer(double.class, new Reasonable(true)));
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
