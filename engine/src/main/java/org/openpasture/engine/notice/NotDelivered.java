package org.openpasture.engine.notice;

/**
 * Why a message was not taken by the server that delivers it.
 *
 * @param reason in words, the server's own where it gave any
 * @param isFinal whether the server refused this message for what it is, so that trying again changes nothing
 */
public record NotDelivered(String reason, boolean isFinal) {}
