package org.openpasture.service.place;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import org.openpasture.api.place.HolidaysRequest;
import org.openpasture.api.place.HolidaysView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.HolidayEdits;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.holiday.HolidayFile;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Public holidays of sites, and days on which they are shut. */
@RestController
class HolidayController {
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;

    HolidayController(Reader reader, Editor editor, Clock clock) {
        this.reader = reader;
        this.editor = editor;
        this.clock = clock;
    }

    /** The holidays of a site, and the rules whose hours leave them out. */
    @GetMapping("/api/v1/sites/{id}/holidays")
    HolidaysView holidays(@PathVariable String id) {
        return view(reader.access(), visible(id).id());
    }

    /** Other holidays in place of those that there were; none removes them. */
    @PutMapping("/api/v1/sites/{id}/holidays")
    HolidaysView change(@PathVariable String id, @RequestBody HolidaysRequest request) {
        return view(editor.edit(access -> HolidayEdits.put(access, id, request.days())), id);
    }

    /**
     * Adds the days of a file to those of the site: a calendar by RFC 5545 (iCalendar), or lines of a date and a name.
     * Days that come again each year are added for the next five years; a date that is there already gets the file's
     * name.
     *
     * @param dryRun whether nothing is changed, and only the days are told that there would be
     */
    @PutMapping("/api/v1/sites/{id}/holidays/file")
    HolidaysView add(
            @PathVariable String id,
            @RequestBody byte[] content,
            @RequestParam(defaultValue = "false") boolean dryRun) {
        editor.check(access -> HolidayEdits.put(access, id, List.of()));
        List<Holiday> read = read(content, visible(id));
        if (!dryRun) {
            return view(editor.edit(access -> HolidayEdits.add(access, id, read)), id);
        }
        editor.check(access -> HolidayEdits.add(access, id, read));
        Access access = reader.access();
        return new HolidaysView(HolidayEdits.together(access.registry(), id, read), rules(access, id));
    }

    private List<Holiday> read(byte[] content, Site site) {
        try {
            return HolidayFile.read(new String(content, StandardCharsets.UTF_8), site.zone(), clock);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(String.valueOf(e.getMessage()));
        }
    }

    private Site visible(String id) {
        reader.require(Right.LOOK, reader.place(id).id(), "look here");
        return reader.access().registry().find(Site.class, id).orElseThrow(() -> Problem.notFound("site"));
    }

    private static HolidaysView view(Access access, String siteId) {
        return new HolidaysView(HolidayEdits.of(access.registry(), siteId), rules(access, siteId));
    }

    /** The names of rules whose hours leave the holidays of a site out, as far as the reader may see them. */
    private static List<String> rules(Access access, String siteId) {
        Registry now = access.registry();
        return now.all(Rule.class).stream()
                .filter(rule -> rule.active() != null
                        && rule.active().countsSiteHolidays()
                        && now.isWithin(now.placeIdOf(rule), siteId)
                        && access.may(Right.LOOK, now.placeIdOf(rule)))
                .map(Rule::name)
                .sorted()
                .toList();
    }
}
