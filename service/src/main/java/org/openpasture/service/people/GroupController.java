package org.openpasture.service.people;

import java.util.List;
import java.util.Optional;
import org.openpasture.api.people.GroupGrantRequest;
import org.openpasture.api.people.GroupRequest;
import org.openpasture.api.people.GroupView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.GrantEdits;
import org.openpasture.core.edit.GroupEdits;
import org.openpasture.core.edit.GroupWish;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.PeopleViews;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Groups of people, who have rights together. */
@RestController
class GroupController {
    private final Reader reader;
    private final Editor editor;
    private final PeopleViews views;

    GroupController(Reader reader, Editor editor, PeopleViews views) {
        this.reader = reader;
        this.editor = editor;
        this.views = views;
    }

    /** The groups that the reader is in, and those with a right on something that the reader manages; all to owners. */
    @GetMapping("/api/v1/groups")
    List<GroupView> groups() {
        Access access = reader.access();
        return access.registry().all(Group.class).stream()
                .filter(group -> maySee(access, group))
                .map(group -> view(access, group))
                .toList();
    }

    /** One group. */
    @GetMapping("/api/v1/groups/{id}")
    GroupView one(@PathVariable String id) {
        return view(reader.access(), group(id));
    }

    /** Makes a group. For owners: who puts a person into a group gives every right that the group has. */
    @PostMapping("/api/v1/groups")
    @ResponseStatus(HttpStatus.CREATED)
    GroupView make(@RequestBody GroupRequest request) {
        return put(Accounts.newId(), request);
    }

    /** Changes the name of a group and who is in it. For owners. */
    @PutMapping("/api/v1/groups/{id}")
    GroupView change(@PathVariable String id, @RequestBody GroupRequest request) {
        return put(group(id).id(), request);
    }

    /** Removes a group, and the rights that its members had by it. For owners. */
    @DeleteMapping("/api/v1/groups/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        group(id);
        editor.edit(access -> GroupEdits.edit(access, new GroupWish.Remove(id)));
    }

    /** Gives a group a right; one that it had on the same goes. For who manages what the right is on. */
    @PostMapping("/api/v1/groups/{id}/grants")
    @ResponseStatus(HttpStatus.CREATED)
    GroupView grant(@PathVariable String id, @RequestBody GroupGrantRequest request) {
        group(id);
        Grant grant = new Grant(Accounts.newId(), id, request.right(), request.targetId());
        editor.edit(access -> GrantEdits.give(access, grant));
        return one(id);
    }

    private GroupView put(String id, GroupRequest request) {
        Group group = new Group(id, request.name(), request.memberIds());
        return view(editor.edit(access -> GroupEdits.edit(access, new GroupWish.Put(group))), group);
    }

    private Group group(String id) {
        Access access = reader.access();
        return access.registry()
                .find(Group.class, id)
                .filter(group -> maySee(access, group))
                .orElseThrow(() -> Problem.notFound("group"));
    }

    private static boolean maySee(Access access, Group group) {
        return maySeeAllOf(access, group)
                || access.registry().grantsHeldBy(group.id()).stream()
                        .anyMatch(grant -> access.mayManage(grant.targetId()));
    }

    private static boolean maySeeAllOf(Access access, Group group) {
        return access.mayManageInstance()
                || group.memberIds().contains(access.person().id());
    }

    private GroupView view(Access access, Group group) {
        boolean whole = maySeeAllOf(access, group);
        return new GroupView(
                group.id(),
                group.name(),
                group.memberIds().stream()
                        .map(member -> access.registry().find(Person.class, member))
                        .flatMap(Optional::stream)
                        .map(person -> new GroupView.Member(person.id(), person.name()))
                        .toList(),
                access.registry().grantsHeldBy(group.id()).stream()
                        .filter(grant -> whole || access.mayManage(grant.targetId()))
                        .map(grant -> views.grant(access.registry(), grant, group.id()))
                        .toList());
    }
}
