package org.openpasture.core.pack;

import java.util.List;
import java.util.Map;
import org.openpasture.core.yaml.YamlFile;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * Packs as text: YAML 1.2, of which JSON is a part, so that people can read, compare and edit them. What stands at its
 * usual value is left out. Neither anchors nor aliases are read, which make small files large. docs/packs.md describes
 * the format.
 */
public final class PackFile {
    private static final List<String> KEYED = List.of("limitSets", "deviceModels", "rules");

    private PackFile() {}

    /** A pack as text. */
    public static String write(Pack pack) {
        ObjectNode tree = YamlFile.tree(pack);
        for (String list : KEYED) {
            tree.path(list).valueStream().forEach(thing -> keyInsteadOfId((ObjectNode) thing));
        }
        tree.path("rules").valueStream().map(ObjectNode.class::cast).forEach(rule -> {
            rule.remove(List.of("recipients", "rounds"));
            YamlFile.drop(rule, "enabled", true);
            YamlFile.drop(rule, "deadBand", 0.0);
            YamlFile.drop(rule, "measure", Map.of("kind", "last"));
            YamlFile.drop(rule, "hold", Map.of("kind", "time", "seconds", 0));
        });
        tree.path("dashboards")
                .valueStream()
                .flatMap(board -> board.path("panels").valueStream())
                .forEach(panel -> ((ObjectNode) panel).remove("id"));
        tree.path("limitSets").valueStream().map(ObjectNode.class::cast).forEach(set -> set.remove("shipped"));
        tree.path("deviceModels").valueStream().map(ObjectNode.class::cast).forEach(model -> model.remove("version"));
        return YamlFile.write(tree);
    }

    /**
     * Reads a pack.
     *
     * @throws YamlFile.Unreadable if it is none, of a newer format, or says what makes no sense
     */
    public static Pack read(String text) {
        JsonNode tree = YamlFile.tree(text);
        if (!(tree instanceof ObjectNode pack) || !pack.path("openPasturePack").isIntegralNumber()) {
            throw new YamlFile.Unreadable(
                    "The file is not a pack: it does not begin with 'openPasturePack: " + Pack.FORMAT + "'.");
        }
        if (pack.path("openPasturePack").asLong() > Pack.FORMAT) {
            throw new YamlFile.Unreadable(
                    "The pack was made by a newer version of this program. Update this one first.");
        }
        YamlFile.check(pack);
        for (String list : KEYED) {
            YamlFile.items(pack, list).forEach(PackFile::idInsteadOfKey);
        }
        YamlFile.items(pack, "rules").forEach(rule -> {
            rule.putArray("recipients");
            rule.remove("rounds");
            rule.putIfAbsent("enabled", YamlFile.tree(true));
            rule.putIfAbsent("deadBand", YamlFile.tree(0));
            rule.putIfAbsent("hold", YamlFile.tree(Map.of("kind", "time", "seconds", 0)));
            rule.putIfAbsent("guidance", StringNode.valueOf(""));
        });
        YamlFile.items(pack, "limitSets").forEach(set -> set.put("shipped", false));
        YamlFile.items(pack, "dashboards").forEach(PackFile::nameThePanels);
        return YamlFile.value(pack, Pack.class, "pack");
    }

    private static void keyInsteadOfId(ObjectNode thing) {
        JsonNode id = thing.remove("id");
        ObjectNode rest = thing.deepCopy();
        thing.removeAll();
        thing.set("key", id);
        thing.setAll(rest);
    }

    private static void idInsteadOfKey(ObjectNode thing) {
        if (thing.has("id") || thing.has("siteId")) {
            throw new YamlFile.Unreadable("Parts of a pack are named by 'key'; they have neither 'id' nor 'siteId'.");
        }
        JsonNode key = thing.remove("key");
        if (key != null) {
            thing.set("id", key);
        }
    }

    private static void nameThePanels(ObjectNode dashboard) {
        int number = 0;
        for (JsonNode panel : dashboard.path("panels")) {
            number++;
            if (panel instanceof ObjectNode object) {
                object.putIfAbsent("id", StringNode.valueOf("panel-" + number));
            }
        }
    }
}
