package org.openpasture.service.web;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** Lists in pages: where there is more, the answer names the address of the next page (RFC 8288). */
public final class Paging {
    /** So many are looked at for one page, so that a page for somebody who may see little costs no more than that. */
    private static final int MOST_LOOKED_AT = 50_000;

    private Paging() {}

    /**
     * Answers with a page.
     *
     * @param found the page and, if there is more, at least one beyond it
     * @param limit how many belong on the page
     * @param key by which the next page is asked for, as {@code after}
     */
    public static <T> ResponseEntity<List<T>> answer(List<T> found, int limit, Function<T, String> key) {
        if (found.size() <= limit) {
            return ResponseEntity.ok(found);
        }
        List<T> page = found.subList(0, limit);
        return ResponseEntity.ok()
                .header(HttpHeaders.LINK, next(key.apply(page.getLast())))
                .body(page);
    }

    static String next(String after) {
        URI next = ServletUriComponentsBuilder.fromCurrentRequest()
                .replaceQueryParam("after", after)
                .build()
                .encode()
                .toUri();
        return "<" + next.getRawPath() + "?" + next.getRawQuery() + ">; rel=\"next\"";
    }

    /**
     * Fetches until a page is full of what is wanted, so that what is filtered out takes no room on it.
     *
     * @param fetch gives the ones behind a key, so many at most
     * @param start the key to begin behind
     */
    public static <T, K extends @Nullable Object> List<T> fill(
            int limit, K start, Fetch<T, K> fetch, Function<T, K> key, Predicate<T> wanted) {
        List<T> page = new ArrayList<>();
        K from = start;
        for (int looked = 0, size = Math.max(100, limit); looked < MOST_LOOKED_AT; looked += size) {
            List<T> found = fetch.from(from, size);
            for (T one : found) {
                if (wanted.test(one)) {
                    page.add(one);
                    if (page.size() == limit) {
                        return page;
                    }
                }
            }
            if (found.size() < size) {
                return page;
            }
            from = key.apply(found.getLast());
            size = Math.min(1000, size * 2);
        }
        return page;
    }

    /** Gives the next ones behind a key. */
    @FunctionalInterface
    public interface Fetch<T, K extends @Nullable Object> {
        List<T> from(K key, int most);
    }
}
