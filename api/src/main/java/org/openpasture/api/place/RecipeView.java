package org.openpasture.api.place;

import java.util.List;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.quantity.Quantity;

/**
 * A prepared formula.
 *
 * @param inputs what it needs, one point for each
 * @param parameters numbers that are entered once
 * @param results what it can give, the usual first
 * @param total whether it adds up from reading to reading
 * @param looksBack whether it rests on a reading before, so that it has one at each reading of its input and at no
 *     interval
 */
public record RecipeView(
        Recipe recipe,
        String title,
        List<Recipe.Input> inputs,
        List<Recipe.Parameter> parameters,
        List<Quantity> results,
        boolean total,
        boolean looksBack) {
    public static RecipeView of(Recipe recipe) {
        return new RecipeView(
                recipe,
                recipe.title(),
                recipe.inputs(),
                recipe.parameters(),
                recipe.results(),
                recipe.isTotal(),
                recipe.looksBack());
    }
}
