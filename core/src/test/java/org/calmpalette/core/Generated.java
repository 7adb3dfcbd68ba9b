package org.calmpalette.core;

import java.util.Random;

/**
 * How much generated input a test tries, and from where it starts. In an ordinary run it is little and the same each time, so that a
 * failure is a failure of a change; {@code ./calm test --long} tries much more from seeds that nobody has seen, and prints them.
 */
public final class Generated {
    /** Whether this is a long run. */
    public static final boolean LONG = Boolean.getBoolean("calm.long");

    /** Of a long run, which prints it: with {@code -Dcalm.seed=} a hunt is repeated. */
    private static final Long SEED = Long.getLong("calm.seed");

    private static final int MANY = 10;

    private Generated() {}

    /** @param usual how often something is tried in each run; a long one tries ten times as often */
    public static int times(int usual) {
        return LONG ? usual * MANY : usual;
    }

    /** @param usual the seed of ordinary runs; another one in a hunt, different for each usual one */
    public static long seed(long usual) {
        return SEED == null ? usual : SEED * 1_000_003 + usual;
    }

    public static Random random(long usual) {
        return new Random(seed(usual));
    }
}
