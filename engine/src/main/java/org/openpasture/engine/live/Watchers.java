package org.openpasture.engine.live;

/**
 * The engine's port to whoever is watching at this moment: open pages and other listeners. Any thread may call it; no
 * call blocks.
 */
public interface Watchers {
    /** Tells all watchers that may know of the event. */
    void publish(LiveEvent event);

    /** Whether anybody watches, so that nothing is prepared for nobody. */
    boolean hasSubscribers();

    /** Nobody watches. */
    Watchers NONE = new Watchers() {
        @Override
        public void publish(LiveEvent event) {
            // Nobody is there to be told.
        }

        @Override
        public boolean hasSubscribers() {
            return false;
        }
    };
}
