package org.openpasture.service.search;

import java.util.List;
import org.openpasture.api.search.FoundView;
import org.openpasture.core.search.Search;
import org.openpasture.service.access.Reader;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Finds what the reader may see by what people call it. */
@RestController
class SearchController {
    private static final int MOST = 30;
    private static final int LONGEST = 200;

    private final Reader reader;

    SearchController(Reader reader) {
        this.reader = reader;
    }

    /**
     * Looks through places, points, devices, gateways, inlets, outlets, rules, dashboards, limit sets, device models
     * and people. Answers the thirty nearest at most.
     *
     * @param text words; each begins a word of the name, of the place, or of the number on the label
     */
    @GetMapping("/api/v1/search")
    List<FoundView> search(@RequestParam(defaultValue = "") String text) {
        return Search.find(reader.access(), text.length() > LONGEST ? text.substring(0, LONGEST) : text, MOST).stream()
                .map(FoundView::of)
                .toList();
    }
}
