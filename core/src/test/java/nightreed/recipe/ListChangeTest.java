package nightreed.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.Structure;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class ListChangeTest {
    private static final List<Recipe> ALL = List.of(
            RecipeTest.bar(),
            Recipes.fm(),
            Recipes.ring(),
            Recipes.formant(),
            Recipes.string(),
            Recipes.bowed(StringRecipe.Drive.ZIGZAG),
            Recipes.brass());

    @Test
    void everyListOfEveryRecipeGrowsToItsEndAndShrinksToItsLeast() throws Exception {
        for (Recipe recipe : ALL) {
            for (Structure.Listed list : recipe.lists()) {
                Recipe r = recipe;
                while (r.lists().stream().anyMatch(l -> l.id().equals(list.id()) && l.hasRoom())) {
                    r = ListChange.add(r, list.id()).on(r);
                }
                Recipe full = r;
                assertThat(size(full, list)).isEqualTo(list.most());
                assertThat(RecipeJson.parse(RecipeJson.text(full), "full")).isEqualTo(full);
                assertThatThrownBy(() -> ListChange.add(full, list.id()).on(full))
                        .isInstanceOf(IllegalArgumentException.class)
                        .hasMessageContaining("room");
                while (size(r, list) > list.least()) {
                    r = ListChange.remove(list.id(), 1).on(r);
                }
                Recipe least = r;
                assertThat(RecipeJson.parse(RecipeJson.text(least), "least")).isEqualTo(least);
                assertThatThrownBy(() -> ListChange.remove(list.id(), 1).on(least))
                        .isInstanceOf(IllegalArgumentException.class);
            }
        }
    }

    private static int size(Recipe r, Structure.Listed list) {
        return Structure.list((Record) r, list.id()).size();
    }

    @Test
    void whatIsMovedToAndFroIsAsBefore() {
        for (Recipe recipe : ALL) {
            for (Structure.Listed list : recipe.lists()) {
                if (list.size() > 1) {
                    Recipe there = ListChange.move(list.id(), 1, list.size()).on(recipe);
                    assertThat(ListChange.move(list.id(), list.size(), 1).on(there))
                            .isEqualTo(recipe);
                    Recipe twice = ListChange.twice(list.id(), 1).on(recipe);
                    assertThat(ListChange.remove(list.id(), 2).on(twice)).isEqualTo(recipe);
                }
            }
        }
    }

    @Test
    void macrosAndLocksGoAlongWithWhatTheyMean() {
        Recipe bar = RecipeTest.bar();
        Macro both = new Macro(
                "ring", 0.5, List.of(new Macro.Aim("mode.2.level", -20, 0, 0), new Macro.Aim("mode.3.t60", 1, 2, 0)));
        Recipe r = bar.withCommon(bar.common().withMacros(List.of(both)));
        ListChange out = ListChange.remove("mode", 2);
        assertThat(out.on(r).common().macros().get(0).targets())
                .extracting(Macro.Aim::parameter)
                .containsExactly("mode.2.t60");
        assertThat(out.renamed(Set.of("mode.1.ratio", "mode.2.level", "mode.3.t60", "tune")))
                .containsExactlyInAnyOrder("mode.1.ratio", "mode.2.t60", "tune");
        ListChange up = ListChange.move("mode", 3, 1);
        assertThat(up.renamed("mode.3.t60")).isEqualTo("mode.1.t60");
        assertThat(up.renamed("mode.1.t60")).isEqualTo("mode.2.t60");
        assertThat(up.renamed("mode.2.t60")).isEqualTo("mode.3.t60");
        assertThat(up.on(r).value("mode.1.t60")).isEqualTo(r.value("mode.3.t60"));
    }

    @Test
    void fiveHundredRandomEditsLeaveRecipesThatSoundUnderTheCeilingAndAreReadBack() throws Exception {
        Random random = new Random(33);
        int done = 0;
        Recipe r = ALL.get(0);
        for (int n = 0; done < 500; n++) {
            if (n % 40 == 0) {
                r = ALL.get(random.nextInt(ALL.size()));
            }
            Recipe changed;
            try {
                changed = edited(r, random);
            } catch (IllegalArgumentException refused) {
                assertThat(refused.getMessage()).isNotBlank();
                continue;
            }
            done++;
            r = changed;
            assertThat(RecipeJson.parse(RecipeJson.text(r), "edited")).isEqualTo(r);
            if (done % 25 == 0) {
                Patch p = Patch.of(r);
                Clip c = Renderer.played(p, r.key(), 1, 0.2, 0.3, 48_000)
                        .scaled(Math.pow(10, PlayingLevel.gainDb(p) / 20));
                assertThat(TruePeak.db(c)).as(RecipeJson.text(r)).isLessThan(0);
            }
        }
    }

    private static Recipe edited(Recipe r, Random random) {
        List<Structure.Listed> lists = r.lists();
        Structure.Listed list = lists.get(random.nextInt(lists.size()));
        int at = 1 + random.nextInt(Math.max(1, list.size()));
        int to = 1 + random.nextInt(Math.max(1, list.size()));
        List<ParameterAccess.Absent> absent = r.absent();
        List<ParameterAccess.Absent> optional = ParameterAccess.optional((Record) r);
        return switch (random.nextInt(6)) {
            case 0 -> ListChange.add(r, list.id()).on(r);
            case 1 -> ListChange.remove(list.id(), at).on(r);
            case 2 -> ListChange.twice(list.id(), at).on(r);
            case 3 -> ListChange.move(list.id(), at, to).on(r);
            case 4 ->
                absent.isEmpty()
                        ? r
                        : r.withPart(absent.get(random.nextInt(absent.size())).id());
            default ->
                optional.isEmpty()
                        ? r
                        : r.withoutPart(
                                optional.get(random.nextInt(optional.size())).id());
        };
    }

    @Test
    void bandsCanHaveEnvelopesOfTheirOwn() {
        Recipe r = Recipes.formant();
        assertThat(r.absent()).extracting(ParameterAccess.Absent::id).contains("band.2.amp");
        Recipe with = r.withPart("band.2.amp");
        assertThat(with.value("band.2.amp.attack")).isGreaterThan(0);
        assertThat(with.withoutPart("band.2.amp")).isEqualTo(r);
        List<String> optional = new ArrayList<>();
        ParameterAccess.optional((Record) with).forEach(p -> optional.add(p.id()));
        assertThat(optional).contains("band.2.amp");
    }
}
