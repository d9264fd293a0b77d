package org.openpasture.core.search;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;

/**
 * Looks through everything registered that a person may see. Every word that is looked for has to begin a word of the
 * name, of the place, or of the address on the label; case and accents make no difference. What has it in the name
 * comes before what has it in its place.
 */
public final class Search {
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");
    private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}]+");

    private Search() {}

    /** A thing with all by which it can be found. */
    private record Candidate(Found found, List<String> name, List<String> all) {
        static Candidate of(Kind kind, String id, String name, String where, String address) {
            List<String> inName = words(name);
            List<String> inAddress = words(address);
            List<String> all = new ArrayList<>(inName);
            all.addAll(words(where));
            all.addAll(inAddress);
            // A number as it stands on a label is written with and without separators.
            all.add(String.join("", inAddress));
            return new Candidate(new Found(kind, id, name, where), inName, all);
        }

        boolean fits(List<String> wanted) {
            return wanted.stream().allMatch(word -> all.stream().anyMatch(own -> own.startsWith(word)));
        }

        /** The smaller, the nearer to what was typed. */
        int distance(List<String> wanted) {
            long inName = wanted.stream()
                    .filter(word -> name.stream().anyMatch(own -> own.startsWith(word)))
                    .count();
            boolean first = !name.isEmpty() && name.getFirst().startsWith(wanted.getFirst());
            return (int) (wanted.size() - inName) * 2 + (first ? 0 : 1);
        }
    }

    /**
     * What fits, the nearest first.
     *
     * @param text what somebody typed; nothing is found for nothing
     * @param most how many at most
     */
    public static List<Found> find(Access access, String text, int most) {
        List<String> wanted = words(text);
        if (wanted.isEmpty()) {
            return List.of();
        }
        return candidates(access)
                .filter(candidate -> candidate.fits(wanted))
                .sorted(Comparator.<Candidate>comparingInt(candidate -> candidate.distance(wanted))
                        .thenComparing(candidate -> candidate.found().kind())
                        .thenComparing(candidate -> candidate.found().name())
                        .thenComparing(candidate -> candidate.found().where()))
                .limit(most)
                .map(Candidate::found)
                .toList();
    }

    private static Stream<Candidate> candidates(Access access) {
        Registry now = access.registry();
        Stream<Candidate> places = Stream.of(Site.class, Area.class, Asset.class)
                .<Place>flatMap(type -> now.all(type).stream())
                .filter(place -> access.may(Right.LOOK, place.id()))
                .map(place -> Candidate.of(Kind.of(place), place.id(), place.name(), path(now, place.parentId()), ""));
        Stream<Candidate> points = now.all(Point.class).stream()
                .filter(access::maySee)
                .map(point -> Candidate.of(
                        Kind.POINT,
                        point.id(),
                        point.name(),
                        path(now, point.placeId()),
                        Integer.toString(point.number())));
        Stream<Candidate> devices = now.all(Device.class).stream()
                .filter(device -> access.may(Right.LOOK, device))
                .map(device -> Candidate.of(
                        Kind.DEVICE, device.id(), device.name(), path(now, device.placeId()), address(device)));
        Stream<Candidate> gateways = now.all(Gateway.class).stream()
                .filter(gateway -> access.may(Right.LOOK, gateway))
                .map(gateway -> Candidate.of(
                        Kind.GATEWAY,
                        gateway.id(),
                        gateway.name(),
                        path(now, gateway.siteId()),
                        gateway.eui().toString()));
        Stream<Candidate> inlets = now.all(Inlet.class).stream()
                .filter(inlet -> access.may(Right.LOOK, inlet))
                .map(inlet -> Candidate.of(Kind.INLET, inlet.id(), inlet.name(), path(now, inlet.siteId()), ""));
        Stream<Candidate> outlets = now.all(Outlet.class).stream()
                .filter(outlet -> access.may(Right.LOOK, outlet.siteId()))
                .map(outlet -> Candidate.of(Kind.OUTLET, outlet.id(), outlet.name(), path(now, outlet.siteId()), ""));
        Stream<Candidate> rules = now.all(Rule.class).stream()
                .filter(access::maySee)
                .map(rule -> Candidate.of(Kind.RULE, rule.id(), rule.name(), path(now, now.placeIdOf(rule)), ""));
        Stream<Candidate> dashboards = now.all(Dashboard.class).stream()
                .filter(dashboard -> access.may(Right.LOOK, dashboard))
                .map(dashboard -> Candidate.of(
                        Kind.DASHBOARD, dashboard.id(), dashboard.name(), path(now, dashboard.siteId()), ""));
        Stream<Candidate> limits = now.all(LimitSet.class).stream()
                .filter(access::maySee)
                .map(set -> Candidate.of(
                        Kind.LIMIT_SET, set.id(), set.title(), "", set.source().document()));
        Stream<Candidate> models = now.all(DeviceModel.class).stream()
                .filter(access::maySee)
                .map(model -> Candidate.of(Kind.DEVICE_MODEL, model.id(), model.name(), "", ""));
        Stream<Candidate> people = now.all(Person.class).stream()
                .filter(access::maySee)
                .map(person -> Candidate.of(Kind.PERSON, person.id(), person.name(), "", person.email()));
        return Stream.of(places, points, devices, gateways, inlets, outlets, rules, dashboards, limits, models, people)
                .flatMap(some -> some);
    }

    private static String address(Device device) {
        return switch (device.identity()) {
            case RadioIdentity radio -> radio.devEui().toString();
            case DeviceIdentity.OfInlet of -> of.address();
        };
    }

    private static String path(Registry now, @Nullable String placeId) {
        return String.join(", ", Paths.down(now, placeId));
    }

    private static List<String> words(String text) {
        String plain = MARKS.matcher(Normalizer.normalize(text, Normalizer.Form.NFKD))
                .replaceAll("")
                .toLowerCase(Locale.ROOT);
        return Arrays.stream(BETWEEN.split(plain))
                .filter(word -> !word.isEmpty())
                .toList();
    }
}
