package org.openpasture.simulator.demo;

import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import org.openpasture.api.people.GrantRequest;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import org.openpasture.simulator.mail.MailStandIn;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Plays the demo co-operative to a running service, over its public interfaces only. */
@Command(name = "demo-player", description = "Plays the demo to a running service.")
public final class Demo implements Runnable {
    @Option(names = "--at", required = true, description = "Address of the service.")
    private URI at;

    @Option(
            names = "--setup-code",
            required = true,
            defaultValue = "${env:PASTURE_SETUPCODE}",
            description = "Its one-time code; else PASTURE_SETUPCODE.")
    private String setupCode;

    @Option(
            names = "--password",
            required = true,
            defaultValue = "${env:PASTURE_PASSWORD}",
            description = "For all demo accounts; else PASTURE_PASSWORD.")
    private String password;

    @Option(names = "--radio-port", defaultValue = "1700")
    private int radioPort;

    @Option(names = "--station-port", defaultValue = "8472")
    private int stationPort;

    @Option(names = "--mqtt-port", defaultValue = "1883")
    private int mqttPort;

    @Option(names = "--pace", defaultValue = "1", description = "How many times faster than the clock its story goes.")
    private double pace;

    @Option(names = "--mail-port", defaultValue = "8425")
    private int mailPort;

    @Option(names = "--mailbox-port", defaultValue = "8471")
    private int mailboxPort;

    public static void main(String[] args) {
        System.exit(new CommandLine(new Demo()).execute(args));
    }

    @Override
    public void run() {
        Clock clock = Clock.systemUTC();
        Instant start = clock.instant();
        DemoWorld world = new DemoWorld(start, pace);
        CountryWorld country = new CountryWorld(start);
        try (MailStandIn mailbox = new MailStandIn(mailPort, mailboxPort);
                DemoFieldbus fieldbus = new DemoFieldbus(world, clock);
                DemoBarn barn = new DemoBarn(world, clock);
                DemoNetwork network = new DemoNetwork(world, clock)) {
            ApiClient anonymous = new ApiClient(at, null);
            ApiClient owner = DemoPeople.owner(anonymous, setupCode, password);
            owner.put(
                    "api/v1/settings/mail",
                    new MailSettings("127.0.0.1", mailbox.smtpPort(), "pasture@harrowfell.example", null, null, false));
            String outside = "http://127.0.0.1:" + mailbox.pagePort();
            owner.put("api/v1/settings/text", Map.of("url", outside + "/text"));
            owner.put("api/v1/settings/life-sign", Map.of("everyMinutes", 1, "url", outside + "/life-sign"));
            Creamery creamery = new Creamery(owner, fieldbus, network);
            String site = creamery.build();
            DemoPeople.invite(owner, anonymous, "technician", Right.EDIT, site, password);
            DemoPeople.invite(owner, anonymous, "adviser", Right.OPERATE, site, password);
            DemoPeople.invite(owner, anonymous, "viewer", Right.LOOK, site, password);
            Farm farm = new Farm(owner, barn);
            String farmSite = farm.build();
            Spring spring = new Spring(owner);
            for (String other : List.of(farmSite, spring.build())) {
                owner.post("api/v1/grants", new GrantRequest("technician", Right.EDIT, other));
                owner.post("api/v1/grants", new GrantRequest("adviser", Right.OPERATE, other));
            }
            Map<String, Integer> numbers = new HashMap<>(creamery.pointNumbers());
            numbers.putAll(farm.pointNumbers());
            numbers.putAll(spring.pointNumbers());
            int readings = DemoHistory.bringIn(owner, world, country, numbers, start);
            creamery.baseline(start);
            creamery.logbook(start);
            InetSocketAddress air = new InetSocketAddress("127.0.0.1", radioPort);
            try (DemoRadio radio = new DemoRadio(air, stationPort, world, clock);
                    DemoCountryRadio hills = new DemoCountryRadio(air, country, clock);
                    DemoFarm bridges = new DemoFarm(farm, at, world, clock)) {
                world.play(clock.instant());
                radio.play();
                hills.play();
                bridges.play();
                network.play(mqttPort, creamery.separatorPassword());
                mailbox.offer("Press the join button of the new sensor", radio::pressJoinButton);
                System.out.println("playing, after " + readings + " readings of history");
                new CountDownLatch(1).await();
            }
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
