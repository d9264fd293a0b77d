package org.openpasture.api.setting;

/**
 * What came of a test.
 *
 * @param message in words, with what to do if it failed
 */
public record TestResult(boolean ok, String message) {}
