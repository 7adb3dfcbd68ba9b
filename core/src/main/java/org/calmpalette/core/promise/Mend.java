package org.calmpalette.core.promise;

import org.calmpalette.core.change.Change;

/**
 * A change that was tried: with it what was broken is kept, and nothing that was kept is broken.
 *
 * @param words what it does, as a person would ask for it
 * @param takes what it takes away from owners, or from the maker
 */
public record Mend(String words, String takes, Change change) {}
