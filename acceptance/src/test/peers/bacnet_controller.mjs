// A building controller made with somebody else's implementation of BACnet/IP. Says on standard output what happens to it, one JSON object a line; takes
// "set OBJECT VALUE", "mute on|off" and "now" on standard input. Arguments: port, device instance.
import { createRequire } from 'node:module';
import { createInterface } from 'node:readline';

const require = createRequire(import.meta.url);
const { default: Client } = require('@bacnet-js/client');
const asn1 = require('@bacnet-js/client/dist/lib/asn1');
const apdu = require('@bacnet-js/client/dist/lib/apdu');
const npdu = require('@bacnet-js/client/dist/lib/npdu');
const { ReadRange } = require('@bacnet-js/client/dist/lib/services');
const e = require('@bacnet-js/client/dist/lib/enum');

const port = Number(process.argv[2]);
const device = Number(process.argv[3]);
const client = new Client({ port, interface: '127.0.0.1', broadcastAddress: '127.0.0.1' });
const say = (what) => console.log(JSON.stringify(what));
const key = (id) => `${id.type}:${id.instance}`;
const real = (value) => ({ type: 4, value });
const text = (value) => ({ type: 7, value });
const choice = (value) => ({ type: 9, value });
const flags = (fault) => ({ type: 8, value: { bitsUsed: 4, value: [fault ? 2 : 0] } });

const objects = new Map();
const add = (type, instance, name, unit, value, tag = 4) =>
  objects.set(`${type}:${instance}`, { id: { type, instance }, name, unit, value, tag, fault: false, written: [] });
add(0, 1, 'Barn temperature', 62, 18.25);
add(0, 2, 'Barn humidity', 29, 71);
add(0, 3, 'Ammonia', 96, 7.5);
add(1, 1, 'Ventilation', 98, 40);
add(4, 1, 'Curtain', undefined, 0, 9);
const logged = [];
let muted = false;
const subscribers = [];

function property(id, number) {
  if (id.type === 8) {
    switch (number) {
      case 77: return [text('Calf barn')];
      case 121: return [text('Example Controls')];
      case 70: return [text('EC-4')];
      case 76: return [{ type: 12, value: { type: 8, instance: device } }, ...[...objects.values()].map((one) => ({ type: 12, value: one.id })),
        { type: 12, value: { type: 20, instance: 1 } }];
      default: return undefined;
    }
  }
  const one = objects.get(key(id));
  if (!one) return undefined;
  switch (number) {
    case 77: return [text(one.name)];
    case 85: return [{ type: one.tag, value: one.value }];
    case 111: return [flags(one.fault)];
    case 117: return one.unit === undefined ? undefined : [choice(one.unit)];
    default: return undefined;
  }
}

client.on('whoIs', ({ header, payload }) => {
  if (muted) return;
  if (payload.lowLimit !== undefined && (device < payload.lowLimit || device > payload.highLimit)) return;
  client.iAmResponse(header.sender, device, 3, 999);
});
client.on('readProperty', ({ header, invokeId, payload }) => {
  if (muted) return;
  const found = property(payload.objectId, payload.property.id);
  if (found) client.readPropertyResponse(header.sender, invokeId, payload.objectId, payload.property, found);
  else client.errorResponse(header.sender, 12, invokeId, 2, 32);
});
client.on('readPropertyMultiple', ({ header, invokeId, payload }) => {
  if (muted) return;
  const values = payload.properties.map((of) => ({
    objectId: of.objectId,
    values: of.properties.map((wanted) => {
      const found = property(of.objectId, wanted.id);
      return { property: wanted, value: found ?? [{ value: { type: 'BacnetError', errorClass: 2, errorCode: objects.has(key(of.objectId)) ? 32 : 31 } }] };
    }),
  }));
  client.readPropertyMultipleResponse(header.sender, invokeId, values);
});
client.on('writeProperty', ({ header, invokeId, payload }) => {
  if (muted) return;
  const one = objects.get(key(payload.objectId));
  if (!one || (one.id.type !== 1 && one.id.type !== 4)) {
    client.errorResponse(header.sender, 15, invokeId, 2, 40);
    return;
  }
  const datum = payload.value.value[0];
  if (datum.type !== 0) one.value = datum.value;
  else one.value = 0;
  say({ written: key(one.id), value: datum.type === 0 ? null : datum.value, tag: datum.type, priority: payload.value.priority });
  client.simpleAckResponse(header.sender, 15, invokeId);
});
client.on('subscribeCov', ({ header, invokeId, payload }) => {
  if (muted) return;
  subscribers.push({ address: header.sender, object: payload.monitoredObjectId, process: payload.subscriberProcessId });
  say({ subscribed: key(payload.monitoredObjectId), lifetime: payload.lifetime });
  client.simpleAckResponse(header.sender, 5, invokeId);
});
client.on('readRange', ({ header, invokeId, payload }) => {
  if (muted) return;
  const after = payload.time.getTime ? payload.time : new Date(payload.time);
  const later = logged.filter((entry) => entry.at > after);
  const piece = later.slice(0, Math.min(payload.count, 10));
  const items = { buffer: Buffer.alloc(1400), offset: 0 };
  for (const { at, value } of piece) {
    asn1.encodeOpeningTag(items, 0);
    asn1.encodeApplicationDate(items, at);
    asn1.encodeApplicationTime(items, at);
    asn1.encodeClosingTag(items, 0);
    asn1.encodeOpeningTag(items, 1);
    asn1.encodeContextReal(items, 2, value);
    asn1.encodeClosingTag(items, 1);
  }
  const buffer = client._getApduBuffer(header.sender);
  npdu.encode(buffer, e.NpduControlPriority.NORMAL_MESSAGE, header.sender);
  apdu.encodeComplexAck(buffer, e.PduType.COMPLEX_ACK, e.ConfirmedServiceChoice.READ_RANGE, invokeId);
  const more = later.length > piece.length;
  ReadRange.encodeAcknowledge(buffer, payload.objectId, payload.property.id, e.ASN1_ARRAY_ALL, { bitsUsed: 3, value: [(piece.length ? 1 : 0) | (more ? 4 : 2)] },
    piece.length, items.buffer.subarray(0, items.offset), e.ReadRangeType.BY_TIME_REFERENCE_TIME_COUNT, 1);
  client.sendBvlc(header.sender, buffer);
  say({ log: piece.length, more });
});
client.on('listening', () => say({ listening: port }));
client.on('error', (error) => say({ error: String(error) }));

createInterface({ input: process.stdin }).on('line', (line) => {
  const [what, ...rest] = line.trim().split(' ');
  if (what === 'mute') muted = rest[0] === 'on';
  if (what === 'fault') objects.get(rest[0]).fault = rest[1] === 'on';
  if (what === 'log') logged.push({ at: new Date(Number(rest[0])), value: Number(rest[1]) });
  if (what === 'set') {
    const one = objects.get(rest[0]);
    one.value = Number(rest[1]);
    for (const to of subscribers.filter((subscriber) => key(subscriber.object) === rest[0])) {
      client.unconfirmedCOVNotification(to.address, to.process, device, to.object, 60, [
        { property: { id: 85 }, value: [{ type: one.tag, value: one.value }] },
        { property: { id: 111 }, value: [flags(one.fault)] },
      ]);
    }
  }
}).on('close', () => process.exit(0));
