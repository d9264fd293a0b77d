package org.openpasture.core.place;

import java.time.LocalDate;
import org.openpasture.core.text.Text;

/**
 * A day that is not like the others of its week, by the calendar of a site.
 *
 * @param name what it is called, such as "Boxing Day"
 */
public record Holiday(LocalDate date, String name) {
    public static final int LONGEST_NAME = 200;

    public Holiday {
        name = name == null ? "" : Text.line(name.strip());
        if (date == null) {
            throw new IllegalArgumentException("a holiday has a date, such as 2026-12-25");
        }
        if (name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("the name of a holiday has " + LONGEST_NAME + " characters at most");
        }
    }
}
