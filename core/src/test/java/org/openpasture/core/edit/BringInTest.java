package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.JsonLayout;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

class BringInTest {
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Eui64 EUI = Eui64.of("02ab540000000101");
    private static final Addresses SMALL = new Addresses() {
        @Override
        public Optional<String> problem(Source source, String address) {
            return address.contains(" ") ? Optional.of("'" + address + "' has a blank") : Optional.empty();
        }

        @Override
        public String normal(Source source, String address) {
            return address.toLowerCase(Locale.ROOT);
        }
    };

    private static Registry registry(Entity... more) {
        return Registry.of(List.of(
                        EDITOR,
                        new Grant("g", "e", Right.EDIT, "farm"),
                        new Grant("h", "e", Right.LOOK, "mill"),
                        new Site("farm", "Farm", ZoneOffset.UTC, null),
                        new Site("mill", "Mill", ZoneOffset.UTC, null),
                        DeviceModel.of(
                                "m",
                                "Probe",
                                60,
                                "battery",
                                new JsonLayout(List.of()),
                                List.of(
                                        Channel.of("air", "Air", Quantity.TEMPERATURE, "°C"),
                                        Channel.of("battery", "Battery", Quantity.VOLTAGE, "V"))),
                        inlet("bus", "farm"),
                        inlet("theirs", "mill"),
                        new Point("old", 7, "Old", "farm", Quantity.TEMPERATURE, "°C", null, null, null, true)))
                .with(Arrays.stream(more).<Change>map(Change.Put::new).toList());
    }

    private static Inlet inlet(String id, String site) {
        return new Inlet(id, id, site, false, new Source.ModbusTcp(200), new Framing.Whole(), null, null, null);
    }

    private static Device at(String inlet, String address, String place) {
        return new Device("d-" + address, "Probe " + address, "m", place, new DeviceIdentity.OfInlet(inlet, address));
    }

    private static Edited bringIn(Registry now, Device... devices) {
        AtomicInteger ids = new AtomicInteger();
        return BringIn.edit(
                new Access(now, EDITOR),
                Arrays.stream(devices).map(one -> new NewDevice(one, true)).toList(),
                SMALL,
                30,
                () -> "n" + ids.incrementAndGet());
    }

    private static void refused(Reason reason, String words, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> {
            assertThat(refused.reason()).isEqualTo(reason);
            assertThat(refused.what()).contains(words);
        });
    }

    @Test
    void eachChannelButTheBatteryGetsAPointWithANumberThatWasNeverGiven() {
        Registry now = registry();
        Edited edited = bringIn(now, at("bus", "a", "farm"), at("bus", "b", "farm"));
        assertThat(edited).isInstanceOf(Changes.class);
        Registry after = now.with(((Changes) edited).steps());
        assertThat(after.all(Point.class)).extracting(Point::number).containsExactly(7, 31, 32);
        assertThat(after.assignmentsOf("d-a")).extracting(Assignment::channel).containsExactly("air");
        assertThat(after.assignmentsOf("d-a").getFirst().pointId()).isEqualTo("n1");
    }

    @Test
    void noneComesTwiceHoweverItsAddressIsSpelt() {
        refused(Reason.CLASH, "have the same", bringIn(registry(), at("bus", "a", "farm"), at("bus", "A", "farm")));
        refused(
                Reason.CLASH,
                "is at this inlet already: 'Probe a'",
                bringIn(registry(at("bus", "a", "farm")), at("bus", "A", "farm")));
        refused(
                Reason.CLASH,
                "is at this inlet already.",
                bringIn(
                        registry(at("bus", "a", "mill"), new Grant("h", "e", Right.LOOK, "nowhere")),
                        at("bus", "A", "farm")));
        Device radio = new Device("r", "Radio", "m", "farm", new RadioIdentity.OverTheAir(EUI, new Eui64(0)));
        Device again = new Device("r2", "Again", "m", "farm", new RadioIdentity.OverTheAir(EUI, new Eui64(1)));
        refused(Reason.CLASH, "is here already: 'Radio'", bringIn(registry(radio), again));
        refused(Reason.CLASH, "'Radio' and 'Again' have the same", bringIn(registry(), radio, again));
    }

    @Test
    void theRightIsAskedAtThePlaceAndAtTheInlet() {
        refused(Reason.NOT_ALLOWED, "bring devices in here", bringIn(registry(), at("bus", "a", "mill")));
        refused(Reason.NOT_ALLOWED, "at this inlet", bringIn(registry(), at("theirs", "a", "farm")));
        refused(Reason.UNKNOWN, "inlet", bringIn(registry(), at("none", "a", "farm")));
        refused(Reason.UNKNOWN, "place", bringIn(registry(), at("bus", "a", "none")));
        refused(
                Reason.UNKNOWN,
                "device model",
                bringIn(registry(), new Device("x", "X", "none", "farm", new DeviceIdentity.OfInlet("bus", "a"))));
        refused(Reason.INVALID, "has a blank", bringIn(registry(), at("bus", "a b", "farm")));
    }
}
