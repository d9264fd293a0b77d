package org.openpasture.service.pack;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.pack.ImportedPackView;
import org.openpasture.api.pack.PackPlanView;
import org.openpasture.api.pack.PackRequest;
import org.openpasture.api.pack.PackView;
import org.openpasture.api.problem.Require;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.pack.PackFile;
import org.openpasture.core.pack.PackLibrary;
import org.openpasture.core.packing.PackChoice;
import org.openpasture.core.packing.PackImport;
import org.openpasture.core.packing.PackMaker;
import org.openpasture.core.packing.PackPlan;
import org.openpasture.core.packing.PackRemoval;
import org.openpasture.core.packing.PackWish;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.yaml.YamlFile;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.fleet.ModelVersions;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Packs: who may look at something may hand it on, who may edit a place may bring one there. */
@RestController
class PackController {
    /** RFC 9512. */
    private static final MediaType YAML = new MediaType("application", "yaml", StandardCharsets.UTF_8);

    private static final int LONGEST_ABOUT = 2_000;
    private final Reader reader;
    private final Editor editor;
    private final ModelVersions versions;
    private final Turns turns = new Turns(8, "Other pack checks");

    PackController(Reader reader, Editor editor, ModelVersions versions) {
        this.reader = reader;
        this.editor = editor;
        this.versions = versions;
    }

    /** Packs that were imported, for places of which the reader sees something. */
    @GetMapping("/api/v1/packs")
    List<ImportedPackView> list() {
        Access access = reader.access();
        return access.registry().all(ImportedPack.class).stream()
                .filter(pack -> PackRemoval.maySee(access, pack))
                .map(pack -> view(access, pack))
                .toList();
    }

    @GetMapping("/api/v1/packs/{id}")
    ImportedPackView one(@PathVariable String id) {
        Access access = reader.access();
        return access.registry()
                .find(ImportedPack.class, id)
                .filter(pack -> PackRemoval.maySee(access, pack))
                .map(pack -> view(access, pack))
                .orElseThrow(() -> Problem.notFound("pack"));
    }

    /** The packs that ship, one for each usual kind of asset. */
    @GetMapping("/api/v1/packs/shipped")
    List<PackView> shipped() {
        return PackLibrary.shipped().stream()
                .map(pack -> new PackView(
                        pack.id(),
                        pack.name(),
                        pack.about(),
                        pack.places().stream()
                                .map(Pack.NeededPlace::assetKind)
                                .findFirst()
                                .orElse(null),
                        pack.rules().stream().map(Rule::name).toList(),
                        pack.dashboards().stream()
                                .map(Pack.PackedDashboard::name)
                                .toList(),
                        pack.limitSets().stream().map(LimitSet::title).toList()))
                .toList();
    }

    /**
     * A pack as a file: the named rules, dashboards, limit sets and device models, with the limit sets that hold for
     * what they are about. Who is notified is not in it.
     */
    @GetMapping("/api/v1/packs/file")
    ResponseEntity<String> file(
            @RequestParam String name,
            @RequestParam(defaultValue = "") String about,
            @RequestParam(defaultValue = "") Set<String> rule,
            @RequestParam(defaultValue = "") Set<String> dashboard,
            @RequestParam(defaultValue = "") Set<String> limitSet,
            @RequestParam(defaultValue = "") Set<String> model) {
        PackChoice choice = new PackChoice(
                Require.text(name, "the pack's name", 120),
                about.isBlank() ? "" : Require.text(about, "what the pack is for", LONGEST_ABOUT),
                rule,
                dashboard,
                limitSet,
                model);
        editor.require(access -> PackMaker.refusal(access, choice));
        String text = PackFile.write(PackMaker.pack(reader.access(), choice));
        return ResponseEntity.ok()
                .contentType(YAML)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(choice.name() + ".yaml", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(text);
    }

    /** What would become of a pack; nothing is changed. */
    @PostMapping("/api/v1/packs/plan")
    PackPlanView plan(@RequestBody PackRequest request) {
        Pack pack = pack(request);
        PackWish wish = wish(request);
        reader.requireAnywhere(Right.EDIT, "import packs");
        editor.require(access -> PackImport.refusal(access, pack, wish));
        Access access = reader.access();
        return turns.take(() -> view(PackImport.plan(access, pack, wish, Accounts::newId), null));
    }

    /**
     * Imports a pack, all that is wanted of it or nothing. Where it was imported for the same places before, what
     * nobody changed since becomes as in the pack, and what was changed stays.
     */
    @PostMapping("/api/v1/packs")
    @ResponseStatus(HttpStatus.CREATED)
    PackPlanView make(@RequestBody PackRequest request) {
        Pack pack = pack(request);
        PackWish wish = wish(request);
        reader.requireAnywhere(Right.EDIT, "import packs");
        Done done = new Done();
        editor.edit(access -> PackImport.refusal(access, pack, wish)
                .<Edited>map(refused -> refused)
                .orElseGet(() -> {
                    done.before = access.registry();
                    done.plan = PackImport.plan(access, pack, wish, Accounts::newId);
                    return done.plan.edited();
                }));
        keepVersions(done);
        return view(done.plan(), done.plan().importId());
    }

    /**
     * Takes an imported pack back: its rules and dashboards that nobody changed since are removed. What was changed
     * stays, as do limit sets and device models, which others may use by now.
     */
    @DeleteMapping("/api/v1/packs/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> PackRemoval.edit(access, id));
    }

    /** What was planned when it was done. */
    private static final class Done {
        private @Nullable PackPlan plan;
        private Registry before = Registry.empty();

        PackPlan plan() {
            return Optional.ofNullable(plan).orElseThrow();
        }
    }

    private void keepVersions(Done done) {
        for (Change step : done.plan().steps()) {
            if (step instanceof Change.Put(DeviceModel model)) {
                done.before.find(DeviceModel.class, model.id()).ifPresent(versions::keep);
            }
        }
    }

    private static Pack pack(PackRequest request) {
        if (request.shipped() != null) {
            return PackLibrary.shipped(request.shipped()).orElseThrow(() -> Problem.notFound("shipped pack"));
        }
        try {
            return PackFile.read(Optional.ofNullable(request.file()).orElse(""));
        } catch (YamlFile.Unreadable e) {
            throw Problem.invalid(String.valueOf(e.getMessage()));
        }
    }

    private static PackWish wish(PackRequest request) {
        return new PackWish(
                request.siteId(),
                Optional.ofNullable(request.places()).orElseThrow(),
                Optional.ofNullable(request.points()).orElseThrow(),
                Optional.ofNullable(request.leaveOut()).orElseThrow(),
                Optional.ofNullable(request.replace()).orElseThrow(),
                Optional.ofNullable(request.recipients()).orElseThrow());
    }

    private static PackPlanView view(PackPlan plan, @Nullable String id) {
        return new PackPlanView(
                id,
                plan.pack().id(),
                plan.pack().name(),
                plan.pack().about(),
                plan.siteId(),
                plan.again(),
                plan.isPossible(),
                plan.places(),
                plan.points(),
                plan.parts());
    }

    private static ImportedPackView view(Access access, ImportedPack pack) {
        return new ImportedPackView(
                pack.id(),
                pack.packId(),
                pack.name(),
                pack.siteId(),
                pack.places().values().stream()
                        .filter(place -> access.may(Right.LOOK, place))
                        .toList(),
                count(pack, "rule/"),
                count(pack, "dashboard/"),
                count(pack, "limit-set/"),
                count(pack, "device-model/"));
    }

    private static int count(ImportedPack pack, String kind) {
        return Math.toIntExact(pack.items().keySet().stream()
                .filter(key -> key.startsWith(kind))
                .count());
    }
}
