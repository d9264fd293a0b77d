package org.openpasture.service.version;

import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** What every request of the API goes through before its controller. */
@Configuration
class Interceptors implements WebMvcConfigurer {
    private final Versions versions;

    Interceptors(Versions versions) {
        this.versions = versions;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(versions).addPathPatterns("/api/**");
    }
}
