package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.calmpalette.core.SharedCases;
import org.calmpalette.core.value.BackgroundLayer;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Where a picture lands in its box, as {@code placing.js} has to say it too; Chromium's pixels of others are in BackgroundsTest. */
class PlacementCasesTest {
    private static final int CASES = 400;

    /** @param at the placed tile's corner, in px @param step to the next tile; 0 where there is none */
    public record Case(
            String position,
            String size,
            String repeat,
            List<Integer> natural,
            List<Integer> box,
            List<Double> at,
            List<Double> tile,
            List<Double> step,
            List<Boolean> many) {}

    private static String pick(Random random, String... of) {
        return of[random.nextInt(of.length)];
    }

    private static String length(Random random) {
        return random.nextBoolean() ? random.nextInt(140) - 20 + "%" : random.nextInt(300) - 60 + "px";
    }

    private static List<Case> generated() {
        Random random = new Random(28);
        List<Case> all = new ArrayList<>();
        for (int i = 0; i < CASES; i++) {
            String position = random.nextInt(3) > 0
                    ? length(random) + " " + length(random)
                    : pick(random, "left", "center", "right") + " " + pick(random, "top", "center", "bottom");
            String size = random.nextInt(3) > 0
                    ? pick(random, "cover", "contain", "auto")
                    : 5 + random.nextInt(150) + pick(random, "px", "%") + pick(random, "", " auto", " 40%", " 90px");
            String repeat = pick(random, "no-repeat", "repeat", "repeat-x", "repeat-y", "space", "round");
            List<Integer> natural = List.of(10 + random.nextInt(400), 10 + random.nextInt(300));
            all.add(placed(
                    position, size, repeat, natural, List.of(40 + random.nextInt(900), 40 + random.nextInt(600))));
        }
        return all;
    }

    private static Case placed(String position, String size, String repeat, List<Integer> natural, List<Integer> box) {
        String[] at = position.split(" ");
        BackgroundLayer layer = BackgroundLayer.read(new BackgroundLayer.Longhands(
                        "url(a.png)", at[0], at[1], size, repeat, "padding-box", "border-box", "scroll"))
                .orElseThrow()
                .get(0);
        Placement p = Placement.of(
                layer, NaturalSize.of(natural.get(0), natural.get(1)), BoxGeometry.of(box.get(0), box.get(1)));
        return new Case(
                position,
                size,
                repeat,
                natural,
                box,
                List.of(p.tile().x(), p.tile().y()),
                List.of(p.tile().width(), p.tile().height()),
                List.of(p.repeatsX() ? p.stepX() : 0, p.repeatsY() ? p.stepY() : 0),
                List.of(p.repeatsX(), p.repeatsY()));
    }

    @Test
    void picturesLandWhereTheSharedCasesSay() {
        if (SharedCases.recorded("placing", generated())) {
            return;
        }
        List<JsonNode> cases = SharedCases.read("placing");
        assertThat(cases).hasSize(CASES);
        for (JsonNode c : cases) {
            Case said = JsonMapper.shared().treeToValue(c, Case.class);
            Case ours = placed(said.position(), said.size(), said.repeat(), said.natural(), said.box());
            assertThat(ours.many()).as(c.toString()).isEqualTo(said.many());
            for (int i = 0; i < 2; i++) {
                assertThat(ours.at().get(i))
                        .as(c.toString())
                        .isCloseTo(said.at().get(i), within(1e-6));
                assertThat(ours.tile().get(i))
                        .as(c.toString())
                        .isCloseTo(said.tile().get(i), within(1e-6));
                assertThat(ours.step().get(i))
                        .as(c.toString())
                        .isCloseTo(said.step().get(i), within(1e-6));
            }
        }
    }
}
