package org.openpasture.client;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;

/**
 * The sign-in that is remembered between commands, in a file that only its owner can read.
 *
 * @param at address of the service
 */
record SignIn(String at, String name, String token) {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    /** {@code PASTURE_SIGN_IN}, else {@code ~/.config/open-pasture/sign-in.json}. */
    static Path file() {
        return Surroundings.get("PASTURE_SIGN_IN")
                .filter(named -> !named.isBlank())
                .map(Path::of)
                .orElseGet(() -> Path.of(System.getProperty("user.home"), ".config", "open-pasture", "sign-in.json"));
    }

    static Optional<SignIn> load() {
        try {
            return Files.exists(file())
                    ? Optional.of(MAPPER.readValue(Files.readString(file()), SignIn.class))
                    : Optional.empty();
        } catch (IOException | tools.jackson.core.JacksonException e) {
            return Optional.empty();
        }
    }

    void save() {
        try {
            Path parent = file().toAbsolutePath().getParent();
            if (parent != null) {
                Files.createDirectories(parent);
            }
            Files.deleteIfExists(file());
            Files.createFile(
                    file(), PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.write(file(), MAPPER.writeValueAsBytes(this), StandardOpenOption.WRITE);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static void forget() {
        try {
            Files.deleteIfExists(file());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
