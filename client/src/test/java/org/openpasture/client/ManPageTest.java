package org.openpasture.client;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import picocli.CommandLine;

class ManPageTest {
    @Test
    void namesEveryCommandAndHidesNothing() {
        String page = ManPage.page();
        for (CommandLine command : Pasture.commandLine().getSubcommands().values()) {
            assertThat(page).contains(".SS " + command.getCommandName().replace("-", "\\-") + "\n");
            for (CommandLine below : command.getSubcommands().values()) {
                assertThat(page)
                        .contains(".SS " + (command.getCommandName() + " " + below.getCommandName()).replace("-", "\\-")
                                + "\n");
            }
        }
        assertThat(page.lines())
                .as("no line is taken for a request that is none")
                .allMatch(line -> !line.startsWith(".") || line.matches("\\.(TH|SH|SS|TP|B|I|RI|br)\\b.*"));
    }
}
