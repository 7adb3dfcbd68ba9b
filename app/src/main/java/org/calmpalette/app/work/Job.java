package org.calmpalette.app.work;

import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.BadInputException;

/**
 * One long work in the background: how far it is, what came of it, and how to stop it. Anybody may ask at any time; only the thread
 * that does the work changes it, and it looks between its steps whether it is to stop.
 *
 * @param <T> what comes of it
 */
public final class Job<T> {
    public enum State {
        WAITING,
        RUNNING,
        DONE,
        FAILED,
        STOPPED
    }

    /** @param what is worked on now, as a person may read it */
    public record Progress(int done, int total, String what) {}

    private static final String OUR_FAULT = "It could not be done because of a fault on our side.";

    private final CountDownLatch ended = new CountDownLatch(1);
    private volatile State state = State.WAITING;
    private volatile Progress progress = new Progress(0, 1, "");
    private volatile boolean toStop;
    private volatile T result;
    private volatile BadInputException failure;
    private Runnable givingWay = () -> {};

    /** What a job does. */
    @FunctionalInterface
    public interface Work<T> {
        /**
         * @param job to tell how far it is, and to ask between steps whether it goes on
         * @throws BadInputException with the reason, if it cannot be done
         * @throws CancellationException if it was stopped; nothing may be changed then
         */
        T of(Job<T> job);
    }

    void run(Work<T> work, Runnable giveWay) {
        if (toStop) {
            end(State.STOPPED);
            return;
        }
        givingWay = giveWay;
        state = State.RUNNING;
        try {
            result = work.of(this);
            end(State.DONE);
        } catch (CancellationException e) {
            end(State.STOPPED);
        } catch (BadInputException e) {
            failure = e;
            end(State.FAILED);
        } catch (RuntimeException | LinkageError | StackOverflowError e) {
            failure = new BadInputException(
                    OUR_FAULT, "Nothing was changed. The reason stands in the log of the application.");
            end(State.FAILED);
            throw e;
        }
    }

    private void end(State with) {
        state = with;
        ended.countDown();
    }

    /** Tells how far it is, and goes on only if nobody has stopped it. @throws CancellationException if somebody has */
    public void at(int done, int total, String what) {
        progress = new Progress(done, total, what);
        goesOn();
    }

    /** Between two steps: lets others have the processor. @throws CancellationException if the job was stopped */
    public void goesOn() {
        if (toStop) {
            throw new CancellationException();
        }
        givingWay.run();
    }

    /** Stops it before its next step; what has ended stays as it is. */
    public void stop() {
        toStop = true;
    }

    public boolean isStopping() {
        return toStop;
    }

    public State state() {
        return state;
    }

    public boolean hasEnded() {
        return ended.getCount() == 0;
    }

    public Progress progress() {
        return progress;
    }

    /** What came of it; empty while it goes on, or if nothing did. */
    public Optional<T> result() {
        return Optional.ofNullable(result);
    }

    /** Why nothing came of it. */
    public Optional<BadInputException> failure() {
        return Optional.ofNullable(failure);
    }

    /** Waits until it has ended, for so long at most. @return whether it has */
    public boolean await(Duration patience) {
        try {
            return ended.await(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return hasEnded();
        }
    }
}
