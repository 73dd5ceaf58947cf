package nightreed.recipe;

import java.util.List;
import java.util.Random;
import nightreed.recipe.part.Parameter;

/** Valid recipes with values anywhere in their ranges. */
public final class RandomRecipes {
    private RandomRecipes() {}

    /** A recipe of one of {@link Recipes#all()}, every value thrown anew; ends of ranges are likely. */
    public static Recipe next(Random chance) {
        List<Recipe> all = Recipes.all();
        Recipe r = all.get(chance.nextInt(all.size()));
        if (r instanceof FmRecipe f) {
            r = f.withCommon(Recipes.moving());
        } else if (r instanceof StringRecipe s) {
            r = s.withCommon(Recipes.moving());
        }
        for (Recipe.Setting s : r.settings()) {
            Parameter p = s.parameter();
            if (p.id().endsWith(".target") || p.id().startsWith("macro") || p.id().endsWith("centre")) {
                continue;
            }
            double place = chance.nextInt(4) == 0 ? chance.nextInt(2) : chance.nextDouble();
            try {
                r = r.with(p.id(), p.at(place));
            } catch (IllegalArgumentException notWithTheOthers) {
                // such as a width of bands that makes them cross: left as it was
            }
        }
        return r;
    }
}
