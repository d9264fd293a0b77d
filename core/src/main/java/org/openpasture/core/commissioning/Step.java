package org.openpasture.core.commissioning;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One step of bringing a device in.
 *
 * @param id gateway, heard, key, answer, window, data, decoder, meaning or response
 * @param state done, waiting, failed or later
 * @param words what is known
 * @param todo what to do about it; empty if nothing
 * @param at when it was passed or failed; null if neither
 */
public record Step(
        String id,
        String title,
        String state,
        String words,
        String todo,
        @Nullable Instant at) {}
