package org.openpasture.core.reading;

/** How far a reading can be trusted, in the words of OPC UA (part 8, status code severity). */
public enum Quality {
  GOOD,
  /** Usable with care, for example a value that was typed in or bridged. */
  UNCERTAIN,
  /** Not to be judged: outside the physical range, a sensor fault, a failed conversion. */
  BAD;

  private static final Quality[] BY_CODE = values();

  /** The quality for a stored code.
   *
   * @param code 0 good, 1 uncertain, 2 bad; anything else reads as bad
   */
  public static Quality ofCode(int code) {
    return code >= 0 && code < BY_CODE.length ? BY_CODE[code] : BAD;
  }

  /** The stored code, 0 to 2. */
  public int code() {
    return ordinal();
  }
}
