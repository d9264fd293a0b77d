package org.openpasture.client;

import java.util.Optional;

/**
 * What is told from outside of a command: by the environment, or, to whoever runs commands within a Java program, by a
 * system property of the same name.
 */
final class Surroundings {
    private Surroundings() {}

    static Optional<String> get(String name) {
        return Optional.ofNullable(System.getProperty(name)).or(() -> Optional.ofNullable(System.getenv(name)));
    }
}
