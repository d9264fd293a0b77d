package org.openpasture.engine.notice;

/**
 * Why a mail was not taken.
 *
 * @param reason in words, the server's own where it gave any
 * @param isFinal whether the server refused this mail for what it is, so that trying again changes nothing
 */
public record MailFailure(String reason, boolean isFinal) {}
