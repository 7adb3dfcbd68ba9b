package org.calmpalette.core.recipe;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;

/** What can be made of one kind of part: one recipe for each. */
interface Recipe {
    /** What owners ask of it, in the order in which they would. */
    List<Question> questions(PartView view);

    /** Offers of whole pictures and the like; of a question that one of these answers no other is made. */
    default List<Offer> whole(PartView view) {
        return List.of();
    }

    /** Ids of questions that are answered by an offer of {@link #whole}. */
    default List<String> answeredBy(Offer whole) {
        return List.of();
    }

    /** What follows the others. @param made of the questions */
    default List<Offer> more(PartView view, List<Offer> made) {
        return List.of();
    }

    /** What the part needs once a setting is there. @param taken ids of the offers */
    default Optional<Added> after(PartView view, Theme theme, List<String> taken) {
        return Optional.empty();
    }

    /** Whether what the part has from around it is the part's. */
    default boolean hasWhatItInherits() {
        return true;
    }

    /** Whether a rule that finds more than the part may follow its setting. */
    default boolean mayReachMore(String property) {
        return false;
    }

    /** Whether things around the part may change with it. */
    default boolean movesOthers() {
        return false;
    }

    /** The selector of a rule that is written for an offer that no rule decided. */
    default String selector(PartView view, Page there, int whole, int element) {
        throw new IllegalStateException("nothing is added to this part");
    }

    /** A rule that is written. @param css with its selector */
    record Added(String why, String css) {}

    static Recipe of(PageParts.Kind kind) {
        return switch (kind) {
            case HEADER -> new HeaderRecipe();
            case HERO -> new HeroRecipe();
            case COLUMN -> new ColumnRecipe();
        };
    }
}
