package org.openpasture.service;

import org.openpasture.service.config.PastureProperties;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.EnableConfigurationProperties;

/** The long-running service: takes in frames, judges, alerts, and serves console and API. */
@SpringBootApplication
@EnableConfigurationProperties(PastureProperties.class)
public class PastureService {
  public static void main(String[] args) {
    SpringApplication.run(PastureService.class, args);
  }
}
