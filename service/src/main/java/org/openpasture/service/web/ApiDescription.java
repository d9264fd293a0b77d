package org.openpasture.service.web;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.info.License;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the description of the API at {@code /api/openapi} says of the whole. */
@Configuration
class ApiDescription {
    @Bean
    OpenAPI openApi() {
        return new OpenAPI()
                .info(
                        new Info()
                                .title("Open Pasture")
                                .version("1")
                                .license(new License().name("Apache-2.0"))
                                .description(
                                        "Sensors on machines, farms and remote sites: places and points, devices and gateways, "
                                                + "readings, limits, rules and alerts. Times are ISO 8601 in UTC. Every refusal is a "
                                                + "problem detail (RFC 9457) with a stable type, one sentence, and what to do (todo). "
                                                + "A list comes whole, or in pages to who asks with limit and after; the header Link names the "
                                                + "next page. What is registered has an ETag; a change with If-Match is refused with 412 if it "
                                                + "was changed meanwhile. A POST with an Idempotency-Key is carried out once, for a day."))
                .components(new Components()
                        .addSecuritySchemes(
                                "token",
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.HTTP)
                                        .scheme("bearer")
                                        .description(
                                                "A program's token (POST /api/v1/tokens), or the one that signing in with a client's name answers."))
                        .addSecuritySchemes(
                                "session",
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.APIKEY)
                                        .in(SecurityScheme.In.COOKIE)
                                        .name("pasture_session")
                                        .description(
                                                "The console's cookie; changes need the header X-Pasture-Console.")))
                .addSecurityItem(new SecurityRequirement().addList("token"))
                .addSecurityItem(new SecurityRequirement().addList("session"));
    }
}
