package org.openpasture.client;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.client.http.ServiceUnreachable;
import org.openpasture.client.output.PlainWriter;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command line. */
@Command(
        name = "pasture",
        mixinStandardHelpOptions = true,
        version = "Open Pasture 0.1.0",
        description = "Looks after sensors: gateways, devices, points, alerts.",
        synopsisHeading = "%n",
        descriptionHeading = "%n",
        commandListHeading = "%nAsking a service:%n",
        optionListHeading = "%nOptions:%n",
        footer = {
            "",
            "On the machine itself:",
            "  demo                 Start the service with the demo co-operative.",
            "  serve                Start a real, empty service (see 'pasture serve --help').",
            "  service install      Make it start at boot.",
            "  restore              Put a backup in place while no service runs.",
            "  owner reset          Print a one-time code for a forgotten owner password.",
            "",
            "Exit status: 0 done, 1 refused, 2 wrong options, 3 no service there, 4 not signed in.",
            "Add --json to any list or answer for a program to read."
        })
public final class Pasture implements Runnable {
    /** The first words, in the order of the help. */
    private static final List<Class<?>> FIRST_WORDS = List.of(
            AccountCommands.SignInCommand.class,
            AccountCommands.SignOutCommand.class,
            AccountCommands.PasswordCommand.class,
            FindCommand.class,
            PlaceCommands.class,
            PointCommands.class,
            ReadingCommands.class,
            CameraCommands.class,
            WaveformCommands.class,
            GatewayCommands.class,
            LogbookCommands.class,
            ModelCommands.class,
            DeviceCommands.class,
            RadioCommands.class,
            InletCommands.class,
            OutletCommands.class,
            FrameCommands.class,
            AlertCommands.class,
            NoticeCommands.class,
            UnitsCommand.class,
            ReportCommands.class,
            RuleCommands.class,
            BaselineCommands.class,
            LimitCommands.class,
            DashboardCommands.class,
            PackCommands.class,
            PeopleCommands.class,
            GroupCommands.class,
            TokenCommands.class,
            EventCommand.class,
            TrailCommand.class,
            RecordCommands.class,
            BackupCommands.class,
            AutoComplete.GenerateCompletion.class);

    static final int REFUSED = 1;
    static final int UNREACHABLE = 3;
    static final int NOT_SIGNED_IN = 4;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    public static void main(String[] args) {
        CommandLine commands = commandLine(args);
        int status = commands.execute(args);
        commands.getOut().flush();
        commands.getErr().flush();
        System.exit(status);
    }

    /**
     * The command line, ready to execute. Two hundred commands with their options take half a second to read, so if the
     * arguments begin with one of the first words, only what stands under that is read.
     */
    public static CommandLine commandLine(String... args) {
        CommandLine commands = new CommandLine(new Pasture());
        List<Class<?>> meant = FIRST_WORDS.stream()
                .filter(one -> args.length > 0
                        && one.getAnnotation(Command.class).name().equals(args[0]))
                .toList();
        (meant.isEmpty() ? FIRST_WORDS : meant).forEach(commands::addSubcommand);
        commands.setOut(new PrintWriter(
                new PlainWriter(new java.io.OutputStreamWriter(System.out, StandardCharsets.UTF_8)), true));
        commands.setErr(new PrintWriter(
                new PlainWriter(new java.io.OutputStreamWriter(System.err, StandardCharsets.UTF_8)), true));
        Optional.ofNullable(commands.getSubcommands().get("generate-completion"))
                .ifPresent(completion -> completion
                        .getCommandSpec()
                        .usageMessage()
                        .description("Print a completion script: source <(pasture generate-completion)"));
        commands.setExecutionExceptionHandler((error, command, parsed) -> explain(error, command));
        commands.setParameterExceptionHandler((error, given) -> {
            error.getCommandLine().getErr().println("pasture: " + error.getMessage());
            CommandLine.UnmatchedArgumentException.printSuggestions(
                    error, error.getCommandLine().getErr());
            error.getCommandLine()
                    .getErr()
                    .println("Try '" + error.getCommandLine().getCommandSpec().qualifiedName() + " --help'.");
            return CommandLine.ExitCode.USAGE;
        });
        commands.setCaseInsensitiveEnumValuesAllowed(true);
        commands.registerConverter(Instant.class, Times::read);
        return commands;
    }

    private static int explain(Exception error, CommandLine command) throws Exception {
        PrintWriter err = command.getErr();
        return switch (error) {
            case ServiceUnreachable unreachable -> {
                err.println("pasture: " + unreachable.getMessage());
                yield UNREACHABLE;
            }
            case ServiceProblem problem -> {
                err.println(
                        "pasture: " + problem.getMessage() + (problem.todo().isEmpty() ? "" : " " + problem.todo()));
                yield problem.status() == 401 ? NOT_SIGNED_IN : REFUSED;
            }
            case NotSignedIn not -> {
                err.println("pasture: " + not.getMessage());
                yield NOT_SIGNED_IN;
            }
            case IllegalArgumentException wrong -> {
                err.println("pasture: " + wrong.getMessage());
                yield CommandLine.ExitCode.USAGE;
            }
            case java.io.IOException file -> {
                err.println("pasture: " + file.getMessage());
                yield REFUSED;
            }
            default -> throw error;
        };
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
