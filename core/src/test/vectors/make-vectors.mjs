// Makes LoRaWAN frames with the npm package lora-packet, an implementation that shares nothing with ours.
// Run: npm install && node make-vectors.mjs > ../resources/org/openpasture/core/lorawan/vectors.json
import lora from "lora-packet";

const { fromFields, fromWire, generateSessionKeys10, recalculateMIC, verifyMIC } = lora;
const hex = (text) => Buffer.from(text, "hex");
const text = (buffer) => Buffer.from(buffer).toString("hex");

const NWK = "44024241ed4ce9a68c6a8bc055233fd3";
const APP = "ec925802ae430ca77fd3dd73cb2cc588";
const ROOT = "6b1f0c5e9a7d43218ecb5a90f37d2e64";

/** Data frames: of both kinds, every payload length class, counters beyond 16 bits, options, port 0. */
const data = [
  { mtype: "Unconfirmed Data Up", fcnt: 0, port: 1, payload: "00" },
  { mtype: "Unconfirmed Data Up", fcnt: 1, port: 2, payload: "74657374" },
  { mtype: "Confirmed Data Up", fcnt: 2, port: 10, payload: "000102030405060708090a0b0c0d0e0f" },
  { mtype: "Unconfirmed Data Up", fcnt: 300, port: 223, payload: "000102030405060708090a0b0c0d0e0f10" },
  { mtype: "Confirmed Data Up", fcnt: 65535, port: 5, payload: "ff".repeat(51) },
  { mtype: "Unconfirmed Data Up", fcnt: 65536, port: 5, payload: "a5".repeat(48) },
  { mtype: "Unconfirmed Data Up", fcnt: 0x12345, port: 7, payload: "5a".repeat(222) },
  { mtype: "Unconfirmed Data Up", fcnt: 7, port: 3, payload: "c0ffee", fopts: "0206" },
  { mtype: "Unconfirmed Data Up", fcnt: 8, port: 0, payload: "0603ff" },
].map((one) => {
  const high = Buffer.alloc(2);
  high.writeUInt16LE(one.fcnt >>> 16);
  const packet = fromFields(
    {
      MType: one.mtype,
      DevAddr: hex("49be7df1"),
      FCtrl: { ADR: one.fcnt % 2 === 1, ACK: false, ADRACKReq: false, FPending: false },
      FCnt: one.fcnt & 0xffff,
      FPort: one.port,
      payload: hex(one.payload),
      ...(one.fopts ? { FOpts: hex(one.fopts) } : {}),
    },
    hex(APP),
    hex(NWK),
    undefined,
    high,
  );
  return { confirmed: one.mtype.startsWith("Confirmed"), devAddr: "49be7df1", nwkSKey: NWK, appSKey: APP, counter: one.fcnt, adr: one.fcnt % 2 === 1,
    port: one.port, options: one.fopts ?? "", payload: one.payload, frame: text(packet.PHYPayload) };
});

const joins = [
  { joinEui: "70b3d57ed00000dc", devEui: "00afee7cf5ed6f1e", nonce: "cc85" },
  { joinEui: "0000000000000000", devEui: "02ab540000000101", nonce: "0001" },
  { joinEui: "ffffffffffffffff", devEui: "fffefdfcfbfaf9f8", nonce: "ffff" },
].map((one) => {
  const packet = fromFields({ MType: "Join Request", AppEUI: hex(one.joinEui), DevEUI: hex(one.devEui), DevNonce: hex(one.nonce) }, undefined, undefined, hex(ROOT));
  return { ...one, nonce: parseInt(one.nonce, 16), appKey: ROOT, frame: text(packet.PHYPayload) };
});

/** Session keys that follow from a join, as the other implementation derives them. */
const sessions = [
  { netId: "000000", joinNonce: "000001", devNonce: "0001" },
  { netId: "000013", joinNonce: "e5063a", devNonce: "cc85" },
].map((one) => {
  const keys = generateSessionKeys10(hex(ROOT), hex(one.netId), hex(one.joinNonce), hex(one.devNonce));
  return { appKey: ROOT, netId: parseInt(one.netId, 16), joinNonce: parseInt(one.joinNonce, 16), devNonce: parseInt(one.devNonce, 16),
    nwkSKey: text(keys.NwkSKey), appSKey: text(keys.AppSKey) };
});

/** Join accepts as the other implementation builds them, in clear and as sent. */
const accepts = sessions.map((session, i) => {
  const list = i === 0 ? "" : "184f84e85684b85e84886684586e8400";
  const packet = fromFields(
    { MType: "Join Accept", AppNonce: hex(session.joinNonce.toString(16).padStart(6, "0")), NetID: hex(session.netId.toString(16).padStart(6, "0")),
      DevAddr: hex("01ab0c0d"), DLSettings: hex("00"), RxDelay: hex("01"), CFList: hex(list) },
    undefined, undefined, hex(ROOT),
  );
  return { ...session, devAddr: "01ab0c0d", dlSettings: 0, rxDelay: 1, channels: list ? [867100000, 867300000, 867500000, 867700000, 867900000] : [], frame: text(packet.PHYPayload) };
});

/** Acknowledgements without payload, which the network sends. */
const acknowledgements = [0, 1, 65536].map((fcnt) => {
  const high = Buffer.alloc(2);
  high.writeUInt16LE(fcnt >>> 16);
  const packet = fromFields({ MType: "Unconfirmed Data Down", DevAddr: hex("49be7df1"), FCtrl: { ADR: false, ACK: true, ADRACKReq: false, FPending: false }, FCnt: fcnt & 0xffff, payload: "" },
    hex(APP), hex(NWK), undefined, high);
  // Built without a payload the package leaves the integrity code open; it is calculated on the finished frame.
  const wire = fromWire(packet.PHYPayload);
  recalculateMIC(wire, hex(NWK), undefined, high);
  const frame = Buffer.concat([packet.PHYPayload.subarray(0, -4), wire.MIC]);
  if (!verifyMIC(fromWire(frame), hex(NWK), undefined, high)) {
    throw new Error("the other implementation does not accept its own acknowledgement");
  }
  return { devAddr: "49be7df1", nwkSKey: NWK, appSKey: APP, counter: fcnt, frame: text(frame) };
});

/** What the network sends: data, confirmed or not, with options, and MAC commands on port 0. */
const downlinks = [
  { fcnt: 0, port: 10, payload: "01003c", confirmed: false, fopts: "", adr: true },
  { fcnt: 9, port: 1, payload: "ff".repeat(33), confirmed: true, fopts: "", adr: false },
  { fcnt: 65537, port: 223, payload: "00112233445566778899aabbccddeeff00", confirmed: true, fopts: "0351ff000106", adr: true },
  { fcnt: 3, port: 0, payload: "0706184f8450", confirmed: false, fopts: "", adr: false },
].map((one) => {
  const high = Buffer.alloc(2);
  high.writeUInt16LE(one.fcnt >>> 16);
  const packet = fromFields({ MType: one.confirmed ? "Confirmed Data Down" : "Unconfirmed Data Down", DevAddr: hex("49be7df1"),
      FCtrl: { ADR: one.adr, ACK: false, FPending: true }, FCnt: one.fcnt & 0xffff, FPort: one.port, payload: hex(one.payload),
      ...(one.fopts ? { FOpts: hex(one.fopts) } : {}) }, hex(APP), hex(NWK), undefined, high);
  return { devAddr: "49be7df1", nwkSKey: NWK, appSKey: APP, counter: one.fcnt, port: one.port, payload: one.payload, confirmed: one.confirmed,
    options: one.fopts, adr: one.adr, frame: text(packet.PHYPayload) };
});

process.stdout.write(JSON.stringify({ madeWith: "lora-packet 0.9.3", data, joins, sessions, accepts, acknowledgements, downlinks }, null, 1) + "\n");
