package org.openpasture.core.pack;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/** The packs that ship, one for each usual kind of asset, one readable file each beside this class. */
public final class PackLibrary {
    private PackLibrary() {}

    /** All shipped packs, in the order of the index. */
    public static List<Pack> shipped() {
        return Held.PACKS;
    }

    /** The shipped pack with an id. */
    public static Optional<Pack> shipped(String id) {
        return shipped().stream().filter(pack -> pack.id().equals(id)).findFirst();
    }

    /** Read when the first one asks. */
    private static final class Held {
        static final List<Pack> PACKS = text("index.txt")
                .lines()
                .map(name -> PackFile.read(text(name + ".yaml")))
                .toList();
    }

    private static String text(String name) {
        try (InputStream in = PackLibrary.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the packs that ship lack " + name);
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
