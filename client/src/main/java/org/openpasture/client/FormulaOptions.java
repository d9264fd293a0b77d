package org.openpasture.client;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Target;
import picocli.CommandLine.Option;

/** How a point is derived from others, as options. */
final class FormulaOptions {
    @Option(
            names = "--formula",
            paramLabel = "FORMULA",
            description =
                    "Derive it from other points: the name of a prepared formula ('pasture points formulas' lists them), "
                            + "or a formula such as \"(a - b) * 1.163\".")
    private @Nullable String formula;

    @Option(
            names = "--input",
            paramLabel = "NAME=POINT",
            description = "The point for an input of the formula, by number, id or name. Repeat it for each input.")
    private Map<String, String> inputs = Map.of();

    @Option(
            names = "--set",
            paramLabel = "NAME=NUMBER",
            description = "A parameter of a prepared formula, such as diameter=2.4.")
    private Map<String, Double> parameters = Map.of();

    @Option(
            names = "--statistic",
            paramLabel = "STATISTIC",
            description = "Derive it as mean, minimum, maximum or sum of all points of its quantity in a place (--of).")
    private @Nullable String statistic;

    @Option(names = "--of", paramLabel = "PLACE", description = "The site, area or asset of --statistic.")
    private @Nullable String of;

    @Option(
            names = "--of-quantity",
            paramLabel = "QUANTITY",
            description = "Which points of the place are taken with --statistic.")
    private @Nullable String ofQuantity;

    @Option(
            names = "--of-tag",
            paramLabel = "TAG",
            description = "Only points of the place with this tag are taken with --statistic.")
    private @Nullable String ofTag;

    @Option(
            names = "--running",
            paramLabel = "RULE",
            description = "Derive it as what one point comes to over time: mean, energy-mean, minimum or maximum.")
    private @Nullable String running;

    @Option(
            names = "--of-point",
            paramLabel = "POINT",
            description = "The point of --running or --while, by number, id or name.")
    private @Nullable String ofPoint;

    @Option(
            names = "--over",
            paramLabel = "MINUTES",
            description = "How long the stretch of --running is, such as 480 for a shift of 8 hours.")
    private @Nullable Integer over;

    @Option(
            names = "--while",
            paramLabel = "POINT",
            description = "Derive it as the readings of --of-point while this point has the value --is, or is between "
                    + "--from-value and --below-value.")
    private @Nullable String whilePoint;

    @Option(names = "--is", paramLabel = "NUMBER", description = "The value that the point of --while has.")
    private @Nullable Double is;

    @Option(names = "--from-value", paramLabel = "NUMBER", description = "The lowest value of the point of --while.")
    private @Nullable Double fromValue;

    @Option(names = "--below-value", paramLabel = "NUMBER", description = "Below which value the point of --while is.")
    private @Nullable Double belowValue;

    @Option(
            names = "--within",
            paramLabel = "MINUTES",
            description = "How old the newest reading of an input may be; 60 by default.")
    private @Nullable Integer within;

    @Option(
            names = "--every",
            paramLabel = "MINUTES",
            description = "Have a reading at this interval; by default whenever an input has one.")
    private @Nullable Integer every;

    /** The formula that was entered; empty for a measured point. */
    Optional<Formula> formula(Service service) {
        if (statistic != null) {
            if (of == null || ofQuantity == null) {
                throw new IllegalArgumentException("Enter the place (--of) and the quantity (--of-quantity) too.");
            }
            return Optional.of(new Formula.Over(
                    Statistic.of(statistic),
                    new Target.Selection(PlaceCommands.id(service, of), Quantity.of(ofQuantity), null, ofTag, null),
                    within,
                    every));
        }
        if (running != null) {
            if (ofPoint == null || over == null) {
                throw new IllegalArgumentException("Enter the point (--of-point) and the minutes (--over) too.");
            }
            return Optional.of(new Formula.OverTime(
                    PointCommands.id(service, ofPoint), new Averaging(Averaging.Rule.of(running), over), every));
        }
        if (whilePoint != null) {
            if (ofPoint == null) {
                throw new IllegalArgumentException("Enter the point whose readings are taken (--of-point) too.");
            }
            return Optional.of(new Formula.While(
                    PointCommands.id(service, ofPoint),
                    PointCommands.id(service, whilePoint),
                    is,
                    fromValue,
                    belowValue,
                    within));
        }
        if (formula == null) {
            return Optional.empty();
        }
        String entered = formula;
        Map<String, String> ids = new HashMap<>();
        inputs.forEach((name, point) -> ids.put(name, PointCommands.id(service, point)));
        return Optional.of(Arrays.stream(Recipe.values())
                .filter(recipe -> recipe.id().equals(entered))
                .findFirst()
                .<Formula>map(recipe -> new Formula.Prepared(recipe, ids, parameters, within, every))
                .orElseGet(() -> new Formula.Written(entered, ids, within, every)));
    }

    /** What a formula usually gives; empty where only the person knows. */
    static Optional<Quantity> usualQuantity(Service service, Formula formula) {
        return switch (formula) {
            case Formula.Prepared prepared ->
                Optional.of(prepared.recipe().results().getFirst());
            case Formula.Written written -> Optional.empty();
            case Formula.Over over -> Optional.of(over.selection().quantity());
            case Formula.OverTime over -> Optional.of(quantityOf(service, over.pointId()));
            case Formula.While some -> Optional.of(quantityOf(service, some.pointId()));
        };
    }

    private static Quantity quantityOf(Service service, String pointId) {
        return Quantity.of(service.api()
                .get("api/v1/points/" + ApiClient.escape(pointId))
                .path("quantity")
                .asString());
    }
}
