package org.openpasture.client;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.GroupGrantRequest;
import org.openpasture.api.people.GroupRequest;
import org.openpasture.client.output.TextTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Groups of people, who have permissions together. */
@Command(
        name = "groups",
        mixinStandardHelpOptions = true,
        description = "Groups of people: list, add, change or remove; their permissions.")
final class GroupCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode groups = all(service);
        if (service.printedJson(groups)) {
            return;
        }
        TextTable table = new TextTable("Group", "Members", "Permissions");
        groups.forEach(group -> table.row(
                group.path("name").asString(),
                String.join(
                        ", ",
                        group.path("members")
                                .valueStream()
                                .map(member -> member.path("name").asString())
                                .toList()),
                PeopleCommands.rights(group)));
        service.out().print(table.isEmpty() ? "No groups.\n" : table.text());
    }

    @Command(name = "add", mixinStandardHelpOptions = true, description = "Create a group. For owners.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--with", paramLabel = "PERSON", description = "Who is in it; may be repeated.") @Nullable
                    List<String> with) {
        return saved(
                to, to.api().post("api/v1/groups", new GroupRequest(name, with == null ? List.of() : ids(to, with))));
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Change the name of a group and who is in it. For owners.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--name", paramLabel = "NEW", description = "Its new name.") @Nullable String renamed,
            @Option(names = "--with", paramLabel = "PERSON", description = "Who joins; may be repeated.") @Nullable
                    List<String> with,
            @Option(names = "--without", paramLabel = "PERSON", description = "Who leaves; may be repeated.") @Nullable
                    List<String> without) {
        JsonNode group = Service.pick(all(to), name, "group");
        Set<String> members = new LinkedHashSet<>();
        group.path("members").forEach(member -> members.add(member.path("id").asString()));
        if (with != null) {
            members.addAll(ids(to, with));
        }
        if (without != null) {
            for (String person : without) {
                members.remove(Service.pick(group.path("members"), person, "member of this group")
                        .path("id")
                        .asString());
            }
        }
        return saved(
                to,
                to.api()
                        .put(
                                address(group),
                                new GroupRequest(
                                        renamed == null ? group.path("name").asString() : renamed,
                                        List.copyOf(members))));
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a group, and the permissions that its members had by it. For owners.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/groups", name, "group");
    }

    @Command(name = "grant", mixinStandardHelpOptions = true, description = "Give a group a permission on a place.")
    int grant(@Mixin Service to, @Parameters(paramLabel = "NAME") String name, @Mixin Permission permission) {
        JsonNode group = Service.pick(all(to), name, "group");
        JsonNode saved = to.api()
                .post(address(group) + "/grants", new GroupGrantRequest(permission.right(), permission.target(to)));
        if (!to.printedJson(saved)) {
            to.out().println("Group '" + saved.path("name").asString() + "': " + PeopleCommands.rights(saved) + ".");
        }
        return 0;
    }

    @Command(name = "revoke", mixinStandardHelpOptions = true, description = "Revoke a permission of a group.")
    int revoke(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--on", paramLabel = "PLACE", required = true, description = "Site, area or asset.")
                    String place) {
        return PeopleCommands.revoke(to, Service.pick(all(to), name, "group"), place);
    }

    private static JsonNode all(Service to) {
        return to.api().get("api/v1/groups");
    }

    private static String address(JsonNode group) {
        return "api/v1/groups/" + group.path("id").asString();
    }

    private static List<String> ids(Service to, List<String> names) {
        JsonNode people = to.api().get("api/v1/people");
        return names.stream()
                .map(name -> Service.pick(people, name, "person").path("id").asString())
                .toList();
    }

    private static int saved(Service to, JsonNode group) {
        if (!to.printedJson(group)) {
            int members = group.path("members").size();
            to.out()
                    .println("Group '" + group.path("name").asString() + "' has " + members
                            + (members == 1 ? " member." : " members."));
        }
        return 0;
    }
}
