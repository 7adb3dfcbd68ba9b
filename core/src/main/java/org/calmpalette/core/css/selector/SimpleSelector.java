package org.calmpalette.core.css.selector;

import java.util.List;
import java.util.Locale;
import org.calmpalette.core.css.Escapes;

/** One simple selector. {@link #toString()} writes it as CSS. */
public sealed interface SimpleSelector {
    Specificity specificity();

    /** {@code *}. */
    record Universal() implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return Specificity.NONE;
        }

        @Override
        public String toString() {
            return "*";
        }
    }

    /** An element name as written. */
    record Type(String name) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(0, 0, 1);
        }

        @Override
        public String toString() {
            return Escapes.identifier(name);
        }
    }

    record Id(String id) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(1, 0, 0);
        }

        @Override
        public String toString() {
            return "#" + Escapes.identifier(id);
        }
    }

    record ClassName(String name) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(0, 1, 0);
        }

        @Override
        public String toString() {
            return "." + Escapes.identifier(name);
        }
    }

    /**
     * An attribute selector.
     *
     * @param operator empty for mere presence, else {@code = ~= |= ^= $= *=}
     * @param flag {@code i}, {@code s}, or 0
     */
    record Attribute(String name, String operator, String value, char flag) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(0, 1, 0);
        }

        @Override
        public String toString() {
            return operator.isEmpty()
                    ? "[" + Escapes.identifier(name) + "]"
                    : "[" + Escapes.identifier(name) + operator + Escapes.string(value) + (flag == 0 ? "" : " " + flag)
                            + "]";
        }
    }

    /** A pseudo-class without arguments, in lower case. */
    record PseudoClass(String name) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(0, 1, 0);
        }

        @Override
        public String toString() {
            return ":" + name;
        }
    }

    /** {@code :is()}, {@code :where()}, {@code :not()}, {@code :has()}, and {@code :-webkit-any()}. */
    record Functional(String name, SelectorList arguments) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            Specificity own = name.startsWith("host") ? new Specificity(0, 1, 0) : Specificity.NONE;
            return name.equals("where") ? own : own.plus(arguments.mostSpecific());
        }

        @Override
        public String toString() {
            return ":" + name + "(" + arguments + ")";
        }
    }

    /**
     * {@code :nth-child()} and its kin: the position is {@code a * n + b} for some n from 0.
     *
     * @param of null, or the selectors that are counted
     */
    record Nth(String name, int a, int b, SelectorList of) implements SimpleSelector {
        boolean fromEnd() {
            return name.contains("last");
        }

        boolean ofType() {
            return name.endsWith("of-type");
        }

        boolean matches(int position) {
            int d = position - b;
            return a == 0 ? d == 0 : d % a == 0 && d / a >= 0;
        }

        @Override
        public Specificity specificity() {
            Specificity own = new Specificity(0, 1, 0);
            return of == null ? own : own.plus(of.mostSpecific());
        }

        @Override
        public String toString() {
            String formula = a == 0
                    ? String.valueOf(b)
                    : (a == 1 ? "n" : a == -1 ? "-n" : a + "n") + (b == 0 ? "" : String.format(Locale.ROOT, "%+d", b));
            return ":" + name + "(" + formula + (of == null ? "" : " of " + of) + ")";
        }
    }

    /** {@code :lang()} and {@code :dir()}, with their words; other functions with words match nothing. */
    record Words(String name, List<String> words) implements SimpleSelector {
        @Override
        public Specificity specificity() {
            return new Specificity(0, 1, 0);
        }

        @Override
        public String toString() {
            return ":" + name + "(" + String.join(", ", words) + ")";
        }
    }

    /**
     * {@code &}: what the selector of the rule around matches; {@code :scope} where no rule is around.
     *
     * @param weight how many simple selectors it stands for when all nesting is written out
     */
    record Nesting(SelectorList parent, long weight) implements SimpleSelector {
        Nesting(SelectorList parent) {
            this(parent, parent == null ? 1 : parent.weight());
        }

        @Override
        public Specificity specificity() {
            return parent == null ? Specificity.NONE : parent.mostSpecific();
        }

        @Override
        public String toString() {
            return parent == null ? ":scope" : ":is(" + parent + ")";
        }
    }
}
