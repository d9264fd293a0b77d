package org.openpasture.service.web;

import java.util.concurrent.TimeUnit;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Serves the console: its files, whose names change with their content, and the one page for each of its addresses. */
@Configuration
class ConsolePages implements WebMvcConfigurer {
    private static final String[] ROOMS = {
        "/",
        "/now",
        "/places/**",
        "/points/**",
        "/dashboards/**",
        "/guide/**",
        "/alerts/**",
        "/rules/**",
        "/fleet/**",
        "/limits/**",
        "/packs",
        "/people/**",
        "/settings/**",
        "/sign-in",
        "/first-visit",
        "/recovery",
        "/reset",
        "/acknowledge",
        "/welcome",
        "/shared/**",
        "/records/**"
    };

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations("classpath:/static/assets/")
                .setCacheControl(CacheControl.maxAge(365, TimeUnit.DAYS).immutable());
    }

    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        for (String room : ROOMS) {
            registry.addViewController(room).setViewName("forward:/index.html");
        }
    }
}
