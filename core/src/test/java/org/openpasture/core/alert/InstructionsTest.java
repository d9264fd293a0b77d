package org.openpasture.core.alert;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Instructions.Line;

class InstructionsTest {
    @Test
    void linesWithANumberOrADashAreSteps() {
        assertThat(Instructions.of("""
                        Stop the pump first.
                        1. Listen at the coupling
                          2) Check the alignment

                        - Tighten the bolts
                        * Write it down
                        Spare parts: shelf 4."""))
                .containsExactly(
                        new Line("Stop the pump first.", 0),
                        new Line("Listen at the coupling", 1),
                        new Line("Check the alignment", 2),
                        new Line("Tighten the bolts", 3),
                        new Line("Write it down", 4),
                        new Line("Spare parts: shelf 4.", 0));
    }

    @Test
    void numbersAndSignsInTextAreNoSteps() {
        assertThat(Instructions.of("-18 °C at most\n2.5 bar\n1234. not a step\n-\n1."))
                .allMatch(line -> !line.isStep())
                .hasSize(5);
        assertThat(Instructions.of(" \n ")).isEmpty();
    }
}
