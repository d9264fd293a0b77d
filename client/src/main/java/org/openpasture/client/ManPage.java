package org.openpasture.client;

import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** Writes the manual page of the command line, in the language of man(7), from the commands themselves. */
public final class ManPage {
    private ManPage() {}

    /** Prints the page. */
    public static void main(String[] args) {
        new PrintStream(System.out, true, StandardCharsets.UTF_8).print(page());
    }

    static String page() {
        CommandSpec root = Pasture.commandLine().getCommandSpec();
        StringBuilder page = new StringBuilder();
        page.append(".TH PASTURE 1 \"\" \"Open Pasture\" \"User Commands\"\n")
                .append(".SH NAME\npasture \\- look after sensors: gateways, devices, points, alerts\n")
                .append(".SH SYNOPSIS\n.B pasture\n.I command\n.RI [ options ]\n")
                .append(".SH DESCRIPTION\n");
        Arrays.stream(root.usageMessage().footer())
                .filter(line -> !line.isBlank())
                .forEach(line -> page.append(text(line.strip())).append("\n.br\n"));
        page.append(".SH COMMANDS\n");
        root.subcommands().values().forEach(command -> command(page, command, ""));
        page.append(".SH ENVIRONMENT\n.TP\n.B PASTURE_PASSWORD\nThe password for sign-in, where it is not asked for.\n")
                .append(".TP\n.B PASTURE_CODE\nThe code of the second factor, where it is not asked for.\n");
        return page.toString();
    }

    private static void command(StringBuilder page, CommandLine command, String above) {
        CommandSpec spec = command.getCommandSpec();
        String name = (above + " " + spec.name()).strip();
        page.append(".SS ").append(text(name)).append('\n');
        page.append(text(Arrays.stream(spec.usageMessage().description()).collect(Collectors.joining(" "))))
                .append('\n');
        for (PositionalParamSpec parameter : spec.positionalParameters()) {
            if (parameter.hidden()) {
                continue;
            }
            page.append(".TP\n.I ").append(text(parameter.paramLabel())).append('\n');
            page.append(description(parameter.description())).append('\n');
        }
        for (OptionSpec option : spec.options()) {
            if (option.hidden() || option.usageHelp() || option.versionHelp()) {
                continue;
            }
            page.append(".TP\n.B ")
                    .append(text(String.join(", ", option.names())))
                    .append(option.arity().max() > 0 ? " \\fI" + text(option.paramLabel()) + "\\fR" : "")
                    .append('\n');
            page.append(description(option.description())).append('\n');
        }
        spec.subcommands().values().stream().distinct().forEach(below -> command(page, below, name));
    }

    private static String description(String[] lines) {
        String joined = text(String.join(" ", lines));
        return joined.isEmpty() ? "\\&" : joined;
    }

    /** A text of which no character means anything to the formatter. */
    private static String text(String plain) {
        String escaped = plain.replace("\\", "\\e").replace("-", "\\-");
        return escaped.startsWith(".") || escaped.startsWith("'") ? "\\&" + escaped : escaped;
    }
}
