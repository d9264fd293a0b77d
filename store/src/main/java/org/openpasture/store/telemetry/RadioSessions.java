package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.COMMAND;
import static org.openpasture.store.generated.telemetrydb.Tables.JOIN_COUNTER;
import static org.openpasture.store.generated.telemetrydb.Tables.RADIO_MAC;
import static org.openpasture.store.generated.telemetrydb.Tables.RADIO_OFFER;
import static org.openpasture.store.generated.telemetrydb.Tables.RADIO_SESSION;
import static org.openpasture.store.generated.telemetrydb.Tables.USED_NONCE;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Session;
import org.openpasture.store.secret.SecretBox;
import tools.jackson.databind.json.JsonMapper;

/** What the network remembers of devices, their session keys encrypted. */
final class RadioSessions {
    private final SecretBox secrets;
    private final CommandLog commands;
    private final JsonMapper mapper = JsonMapper.builder().build();

    RadioSessions(SecretBox secrets, CommandLog commands) {
        this.secrets = secrets;
        this.commands = commands;
    }

    void apply(DSLContext dsl, RadioChange change) {
        switch (change) {
            case RadioChange.SessionBegan(String deviceId, Session session) -> {
                dsl.deleteFrom(RADIO_OFFER)
                        .where(RADIO_OFFER.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(RADIO_SESSION)
                        .where(RADIO_SESSION.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.insertInto(
                                RADIO_SESSION,
                                RADIO_SESSION.DEVICE_ID,
                                RADIO_SESSION.DEV_ADDR,
                                RADIO_SESSION.KEYS,
                                RADIO_SESSION.LAST_UP,
                                RADIO_SESSION.NEXT_DOWN)
                        .values(
                                deviceId,
                                Integer.toUnsignedLong(session.devAddr().bits()),
                                sealed(session),
                                session.lastUp(),
                                session.nextDown())
                        .execute();
            }
            case RadioChange.SessionOffered(String deviceId, Session session, MacState mac) -> {
                dsl.deleteFrom(RADIO_OFFER)
                        .where(RADIO_OFFER.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.insertInto(
                                RADIO_OFFER,
                                RADIO_OFFER.DEVICE_ID,
                                RADIO_OFFER.DEV_ADDR,
                                RADIO_OFFER.KEYS,
                                RADIO_OFFER.MAC)
                        .values(
                                deviceId,
                                Integer.toUnsignedLong(session.devAddr().bits()),
                                sealed(session),
                                mapper.writeValueAsString(mac))
                        .execute();
            }
            case RadioChange.CountersMoved(String deviceId, long lastUp, long nextDown) ->
                dsl.update(RADIO_SESSION)
                        .set(RADIO_SESSION.LAST_UP, lastUp)
                        .set(RADIO_SESSION.NEXT_DOWN, nextDown)
                        .where(RADIO_SESSION.DEVICE_ID.eq(deviceId))
                        .execute();
            case RadioChange.Joined(String deviceId, int devNonce, int nextJoinNonce) -> {
                dsl.insertInto(USED_NONCE, USED_NONCE.DEVICE_ID, USED_NONCE.DEV_NONCE)
                        .values(deviceId, (long) devNonce)
                        .onConflictDoNothing()
                        .execute();
                dsl.insertInto(JOIN_COUNTER, JOIN_COUNTER.DEVICE_ID, JOIN_COUNTER.JOIN_NONCE)
                        .values(deviceId, (long) nextJoinNonce)
                        .onConflict(JOIN_COUNTER.DEVICE_ID)
                        .doUpdate()
                        .set(JOIN_COUNTER.JOIN_NONCE, (long) nextJoinNonce)
                        .execute();
            }
            case RadioChange.Forgotten(String deviceId) -> {
                dsl.deleteFrom(RADIO_OFFER)
                        .where(RADIO_OFFER.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(RADIO_SESSION)
                        .where(RADIO_SESSION.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(USED_NONCE)
                        .where(USED_NONCE.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(JOIN_COUNTER)
                        .where(JOIN_COUNTER.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(RADIO_MAC)
                        .where(RADIO_MAC.DEVICE_ID.eq(deviceId))
                        .execute();
                dsl.deleteFrom(COMMAND).where(COMMAND.DEVICE_ID.eq(deviceId)).execute();
            }
            case RadioChange.MacChanged(String deviceId, MacState state) -> {
                String json = mapper.writeValueAsString(state);
                dsl.insertInto(RADIO_MAC, RADIO_MAC.DEVICE_ID, RADIO_MAC.STATE)
                        .values(deviceId, json)
                        .onConflict(RADIO_MAC.DEVICE_ID)
                        .doUpdate()
                        .set(RADIO_MAC.STATE, json)
                        .execute();
            }
            case RadioChange.CommandChanged(String deviceId, Command command) -> commands.save(dsl, command);
        }
    }

    private byte[] sealed(Session session) {
        byte[] keys = new byte[32];
        System.arraycopy(session.nwkSKey().toBytes(), 0, keys, 0, 16);
        System.arraycopy(session.appSKey().toBytes(), 0, keys, 16, 16);
        return secrets.seal(keys);
    }

    private Session session(long devAddr, byte[] sealed, long lastUp, long nextDown) {
        byte[] keys = secrets.open(sealed);
        return new Session(
                new DevAddr((int) devAddr),
                AesKey.of(Arrays.copyOf(keys, 16)),
                AesKey.of(Arrays.copyOfRange(keys, 16, 32)),
                lastUp,
                nextDown);
    }

    /** What was remembered of all devices. */
    RadioMemory read(DSLContext dsl) {
        Map<String, RadioMemory.Offer> offers = new HashMap<>();
        dsl.selectFrom(RADIO_OFFER)
                .forEach(row -> offers.put(
                        row.getDeviceId(),
                        new RadioMemory.Offer(
                                session(row.getDevAddr(), row.getKeys(), -1, 0),
                                mapper.readValue(row.getMac(), MacState.class))));
        Map<String, Session> sessions = new HashMap<>();
        dsl.selectFrom(RADIO_SESSION)
                .forEach(row -> sessions.put(
                        row.getDeviceId(),
                        session(row.getDevAddr(), row.getKeys(), row.getLastUp(), row.getNextDown())));
        Map<String, Set<Integer>> nonces = new HashMap<>();
        dsl.selectFrom(USED_NONCE).forEach(row -> nonces.computeIfAbsent(row.getDeviceId(), id -> new HashSet<>())
                .add(row.getDevNonce().intValue()));
        Map<String, Integer> next = new HashMap<>();
        dsl.selectFrom(JOIN_COUNTER)
                .forEach(row -> next.put(row.getDeviceId(), row.getJoinNonce().intValue()));
        Map<String, MacState> states = new HashMap<>();
        dsl.selectFrom(RADIO_MAC)
                .forEach(row -> states.put(row.getDeviceId(), mapper.readValue(row.getState(), MacState.class)));
        return new RadioMemory(sessions, offers, nonces, next, states, commands.open(dsl), commands.lastId(dsl));
    }
}
