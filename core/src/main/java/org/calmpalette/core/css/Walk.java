package org.calmpalette.core.css;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import org.calmpalette.core.Budget;

/** Goes through the tree of a stylesheet. */
final class Walk {
    private Walk() {}

    static void declarations(List<Node> nodes, BiConsumer<Node.Declaration, List<Node.Rule>> visitor) {
        walk(nodes, List.of(), visitor);
    }

    private static void walk(
            List<Node> nodes, List<Node.Rule> around, BiConsumer<Node.Declaration, List<Node.Rule>> visitor) {
        for (Node node : nodes) {
            if (node instanceof Node.Declaration declaration) {
                Budget.step();
                visitor.accept(declaration, around);
            } else if (node instanceof Node.Rule rule && !rule.children().isEmpty()) {
                List<Node.Rule> inner = new ArrayList<>(around);
                inner.add(rule);
                walk(rule.children(), List.copyOf(inner), visitor);
            }
        }
    }
}
