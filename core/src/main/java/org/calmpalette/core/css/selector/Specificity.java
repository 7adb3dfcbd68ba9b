package org.calmpalette.core.css.selector;

/** Specificity: Selectors 4, section 17. Ids, then classes with attributes and pseudo-classes, then elements. */
public record Specificity(int ids, int classes, int elements) implements Comparable<Specificity> {
    public static final Specificity NONE = new Specificity(0, 0, 0);

    public Specificity plus(Specificity other) {
        return new Specificity(ids + other.ids, classes + other.classes, elements + other.elements);
    }

    @Override
    public int compareTo(Specificity other) {
        int byIds = Integer.compare(ids, other.ids);
        int byClasses = Integer.compare(classes, other.classes);
        return byIds != 0 ? byIds : byClasses != 0 ? byClasses : Integer.compare(elements, other.elements);
    }

    static Specificity max(Specificity a, Specificity b) {
        return a.compareTo(b) >= 0 ? a : b;
    }
}
