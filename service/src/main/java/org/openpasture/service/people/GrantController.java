package org.openpasture.service.people;

import org.openpasture.api.people.GrantRequest;
import org.openpasture.api.people.PersonView;
import org.openpasture.core.edit.GrantEdits;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.text.PersonName;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.PeopleViews;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rights on places, devices and dashboards: people are given them here, groups at their own address. */
@RestController
class GrantController {
    private final Reader reader;
    private final Editor editor;
    private final PeopleViews views;

    GrantController(Reader reader, Editor editor, PeopleViews views) {
        this.reader = reader;
        this.editor = editor;
        this.views = views;
    }

    /** Gives somebody who is here already another right; one that they had on the same goes. */
    @PostMapping("/api/v1/grants")
    @ResponseStatus(HttpStatus.CREATED)
    PersonView grant(@RequestBody GrantRequest request) {
        editor.require(access -> GrantEdits.managing(access, request.targetId(), "give rights here"));
        String key = PersonName.key(request.personName());
        Person person = reader.now().all(Person.class).stream()
                .filter(one -> PersonName.key(one.name()).equals(key))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("person"));
        Grant grant = new Grant(Accounts.newId(), person.id(), request.right(), request.targetId());
        return views.person(
                editor.edit(access -> GrantEdits.give(access, grant)).registry(), person);
    }

    /** Takes a right from a person or a group. */
    @DeleteMapping("/api/v1/grants/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revoke(@PathVariable String id) {
        editor.edit(access -> GrantEdits.revoke(access, id));
    }
}
