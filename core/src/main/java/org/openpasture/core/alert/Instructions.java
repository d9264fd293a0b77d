package org.openpasture.core.alert;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What to do about an alert, line by line. A line that begins with a number ("1. Close the valve"), a dash or a star is
 * a step that can be ticked off; other lines are text.
 */
public final class Instructions {
    private static final Pattern STEP = Pattern.compile("\\s*(?:[-*•]|\\d{1,3}[.)])\\s+(\\S.*)");

    /**
     * A line.
     *
     * @param text without its mark
     * @param number of the step, from 1; 0 for text
     */
    public record Line(String text, int number) {
        /** Whether it can be ticked off. */
        public boolean isStep() {
            return number > 0;
        }

        /** By what a tick of it is found: its number and its words, so that another text is another step. */
        public String key() {
            return number + ". " + text;
        }
    }

    private Instructions() {}

    /** The lines of a text; empty ones are left out. */
    public static List<Line> of(String text) {
        List<Line> lines = new ArrayList<>();
        int steps = 0;
        for (String line : text.lines().toList()) {
            Matcher matcher = STEP.matcher(line);
            if (matcher.matches()) {
                steps++;
                lines.add(new Line(matcher.group(1).strip(), steps));
            } else if (!line.isBlank()) {
                lines.add(new Line(line.strip(), 0));
            }
        }
        return lines;
    }
}
