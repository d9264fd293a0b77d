package org.openpasture.client;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.GrantRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** People and invitations. */
@Command(name = "people", mixinStandardHelpOptions = true, description = "Who may do what; invite somebody.")
final class PeopleCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode people = service.api().get("api/v1/people");
        if (service.printedJson(people)) {
            return;
        }
        TextTable table = new TextTable("Person", "E-mail", "Rights");
        people.forEach(person -> table.row(
                person.path("name").asString(),
                person.path("email").asString(""),
                person.path("owner").asBoolean() ? "owner" : rights(person)));
        service.out().print(table.text());
    }

    /** The permissions of a person or a group, in one line. */
    static String rights(JsonNode holder) {
        return String.join(
                ", ",
                holder.path("grants")
                        .valueStream()
                        .map(grant -> grant.path("right").asString() + " on "
                                + grant.path("targetName").asString() + byGroup(grant))
                        .toList());
    }

    private static String byGroup(JsonNode grant) {
        return grant.path("group").isString()
                ? " (group '" + grant.path("group").asString() + "')"
                : "";
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove somebody's account: what they made stays, their rights and links end.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        JsonNode person = Service.pick(to.api().get("api/v1/people"), name, "person");
        to.api().delete("api/v1/people/" + person.path("id").asString());
        if (!to.printedJson(person)) {
            to.out().println(person.path("name").asString() + " has no account any more.");
        }
        return 0;
    }

    @Command(
            name = "grant",
            mixinStandardHelpOptions = true,
            description = "Give somebody who is here already a right on another place.")
    int grant(@Mixin Service to, @Parameters(paramLabel = "NAME") String name, @Mixin Permission permission) {
        JsonNode person =
                to.api().post("api/v1/grants", new GrantRequest(name, permission.right(), permission.target(to)));
        if (!to.printedJson(person)) {
            to.out()
                    .println(person.path("name").asString() + " may "
                            + permission.right().id() + " there now.");
        }
        return 0;
    }

    @Command(
            name = "invite",
            mixinStandardHelpOptions = true,
            description = "Invite somebody; prints the link to hand over.")
    int invite(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Mixin Permission permission,
            @Option(names = "--email", paramLabel = "ADDRESS", description = "Also send the link there.") @Nullable
                    String email) {
        JsonNode invitation = to.api()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest(name, email, permission.right(), permission.target(to)));
        if (!to.printedJson(invitation)) {
            to.out().println(invitation.path("link").asString());
        }
        return 0;
    }

    @Command(name = "revoke", mixinStandardHelpOptions = true, description = "Revoke a permission on a place.")
    int revoke(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--on", paramLabel = "PLACE", required = true, description = "Site, area or asset.")
                    String place) {
        return revoke(to, Service.pick(to.api().get("api/v1/people"), name, "person"), place);
    }

    /** Takes away what a person or a group was given itself on a place. */
    static int revoke(Service to, JsonNode holder, String place) {
        String target = PlaceCommands.id(to, place);
        String name = holder.path("name").asString();
        JsonNode grant = holder.path("grants")
                .valueStream()
                .filter(one -> one.path("targetId").asString().equals(target))
                .filter(one -> !one.path("group").isString())
                .findFirst()
                .orElseThrow(
                        () -> new IllegalArgumentException(name + " has no permission of its own on '" + place + "'"));
        to.api().delete("api/v1/grants/" + grant.path("id").asString());
        if (!to.printedJson(grant)) {
            to.out()
                    .println(name + " has no permission on "
                            + grant.path("targetName").asString() + " any more.");
        }
        return 0;
    }

    @Command(name = "invitations", mixinStandardHelpOptions = true, description = "Open invitations.")
    int invitations(@Mixin Service to) {
        JsonNode all = to.api().get("api/v1/invitations");
        if (to.printedJson(all)) {
            return 0;
        }
        TextTable table = new TextTable("Person", "E-mail", "May", "On", "Until");
        all.forEach(one -> table.row(
                one.path("name").asString(),
                one.path("email").asString(""),
                one.path("right").asString(),
                one.path("targetName").asString(),
                Words.moment(one.path("expiresAt"))));
        to.out().print(table.isEmpty() ? "No open invitations.\n" : table.text());
        return 0;
    }

    @Command(name = "uninvite", mixinStandardHelpOptions = true, description = "Withdraw an invitation.")
    int uninvite(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/invitations", name, "invitation");
    }

    @Command(name = "access", mixinStandardHelpOptions = true, description = "Who has access to a place, and why.")
    int access(@Mixin Service to, @Parameters(paramLabel = "PLACE") String place) {
        JsonNode reasons = to.api().get("api/v1/places/" + ApiClient.escape(PlaceCommands.id(to, place)) + "/people");
        if (to.printedJson(reasons)) {
            return 0;
        }
        TextTable table = new TextTable("Person", "Permission", "Because of");
        reasons.forEach(reason -> table.row(
                reason.path("personName").asString(),
                reason.path("right").asString(),
                switch (reason.path("why").asString()) {
                    case "owner" -> "owner of this instance";
                    case "grant-here" -> "permission on this place" + byGroup(reason);
                    case "grant-above" ->
                        "permission on " + reason.path("targetName").asString() + byGroup(reason);
                    default -> "permission on " + reason.path("targetName").asString() + " only" + byGroup(reason);
                }));
        to.out().print(table.text());
        return 0;
    }
}
