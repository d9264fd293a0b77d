package org.openpasture.service;

import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import org.openpasture.service.config.PastureProperties;
import org.openpasture.store.backup.WantedRestore;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ContextClosedEvent;

/** The long-running service: takes in frames, judges, alerts, and serves console and API. */
@SpringBootApplication(scanBasePackages = {"org.openpasture.engine", "org.openpasture.service"})
@EnableConfigurationProperties(PastureProperties.class)
public class PastureService {
    /**
     * Runs until it is stopped; starts again by itself when a backup is to be put back. Closing again waits for who
     * closes.
     */
    public static void main(String[] args) throws InterruptedException {
        Path data;
        do {
            CountDownLatch closed = new CountDownLatch(1);
            ConfigurableApplicationContext context = SpringApplication.run(PastureService.class, args);
            context.addApplicationListener(event -> {
                if (event instanceof ContextClosedEvent) {
                    closed.countDown();
                }
            });
            data = context.getBean(PastureProperties.class).data();
            closed.await();
            context.close();
        } while (WantedRestore.isNoted(data));
    }
}
