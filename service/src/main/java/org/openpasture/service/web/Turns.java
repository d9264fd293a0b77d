package org.openpasture.service.web;

import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.openpasture.service.problem.Problem;

/** Lets only so many long answers be worked out at once, since each keeps a processor busy. Any thread may ask. */
public final class Turns {
    private final Semaphore free;
    private final String others;

    /**
     * Turns for one kind of question.
     *
     * @param others what runs where none is free, as the begin of a sentence: "Other rule tests"
     */
    public Turns(int atOnce, String others) {
        this.free = new Semaphore(atOnce);
        this.others = others;
    }

    /**
     * Works an answer out, in a turn of its own.
     *
     * @throws Problem if none is free
     */
    public <T> T take(Supplier<T> work) {
        if (!free.tryAcquire()) {
            throw Problem.unavailable(others + " are running.", "Try again in a moment.");
        }
        try {
            return work.get();
        } finally {
            free.release();
        }
    }
}
