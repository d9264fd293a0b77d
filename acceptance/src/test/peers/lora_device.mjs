// A packet-forwarder gateway and a LoRaWAN 1.0.x device made with somebody else's implementation of the protocol. The device
// obeys the MAC commands that it hears; how well it is heard follows from what it was told. Says on standard output what
// happens, one JSON object a line. Takes on standard input "join NONCE", "up COUNT [OPTIONS-HEX]", "snr DB", "lose N"
// (of N answers one is not heard), "least POWER" (a power step that it refuses beyond), "port PORT" (of the service),
// "again" (the last uplink once more), "gap N" (counts N ahead) and "state".
// Arguments: port of the service, gateway EUI, DevEUI, JoinEUI, AppKey.
import { createRequire } from 'node:module';
import { createSocket } from 'node:dgram';
import { createInterface } from 'node:readline';

const require = createRequire(import.meta.url);
const lora = require('lora-packet');

let [servicePort] = process.argv.slice(2);
const [, gatewayEui, devEui, joinEui, appKeyHex] = process.argv.slice(2);
const hex = (text) => Buffer.from(text, 'hex');
const appKey = hex(appKeyHex);
const say = (what) => console.log(JSON.stringify(what));
const WINDOW_MS = 700;
const SPREADING = [12, 11, 10, 9, 8, 7];
const CHANNELS = [868.1, 868.3, 868.5];

const device = {
  session: null,
  counter: 0,
  lastDown: -1,
  dataRate: 0,
  power: 0,
  repetitions: 1,
  answers: [],
  nonce: 0,
};
let bestSnr = 8;
let loseEvery = 0;
let heardAnswers = 0;
let leastPower = 7;
let lastFrame = null;
let waiting = null;

const socket = createSocket('udp4');
let token = 0;
const send = (kind, body) => {
  token = (token + 1) & 0xffff;
  const head = Buffer.alloc(12);
  head[0] = 2;
  head.writeUInt16BE(token, 1);
  head[3] = kind;
  hex(gatewayEui).copy(head, 4);
  socket.send(Buffer.concat([head, body]), Number(servicePort), '127.0.0.1');
};
const pull = () => send(2, Buffer.alloc(0));
setInterval(pull, 1000);

socket.on('message', (message) => {
  if (message[3] !== 3) {
    if (message[3] === 4) say({ reachable: true });
    return;
  }
  const packet = JSON.parse(message.subarray(4).toString()).txpk;
  const head = Buffer.from(message.subarray(0, 3));
  const acknowledgement = Buffer.alloc(12);
  head.copy(acknowledgement);
  acknowledgement[3] = 5;
  hex(gatewayEui).copy(acknowledgement, 4);
  socket.send(acknowledgement, Number(servicePort), '127.0.0.1');
  heardAnswers += 1;
  if (loseEvery > 0 && heardAnswers % loseEvery === 0) {
    say({ lost: packet.data });
    return;
  }
  if (waiting) {
    const done = waiting;
    waiting = null;
    done(packet);
  } else {
    hear(packet);
  }
});

const air = (frame, snr) =>
  send(
    0,
    Buffer.from(
      JSON.stringify({
        rxpk: [
          {
            tmst: Math.floor(performance.now() * 1000) >>> 0,
            freq: CHANNELS[device.counter % CHANNELS.length],
            stat: 1,
            modu: 'LORA',
            datr: `SF${SPREADING[device.dataRate]}BW125`,
            codr: '4/5',
            rssi: -90,
            lsnr: snr,
            size: frame.length,
            data: frame.toString('base64'),
          },
        ],
      }),
    ),
  );
const answer = () =>
  new Promise((resolve) => {
    const timer = setTimeout(() => {
      waiting = null;
      resolve(null);
    }, WINDOW_MS);
    waiting = (packet) => {
      clearTimeout(timer);
      resolve(packet);
    };
  });

async function join(nonce) {
  const devNonce = Buffer.alloc(2);
  devNonce.writeUInt16BE(nonce);
  const request = lora.fromFields(
    { MType: 'Join Request', AppEUI: hex(joinEui), DevEUI: hex(devEui), DevNonce: devNonce },
    undefined,
    undefined,
    appKey,
  );
  const got = answer();
  air(request.PHYPayload, bestSnr);
  const packet = await got;
  if (!packet) {
    say({ joined: false });
    return;
  }
  const clear = lora.fromWire(lora.decryptJoinAccept(lora.fromWire(Buffer.from(packet.data, 'base64')), appKey));
  const keys = lora.generateSessionKeys10(appKey, clear.NetID, clear.AppNonce, devNonce);
  const offered = { address: clear.DevAddr, nwk: keys.NwkSKey, app: keys.AppSKey };
  say({ joined: true, devAddr: clear.DevAddr.toString('hex'), dlSettings: clear.DLSettings.toString('hex'), rxDelay: clear.RxDelay.toString('hex') });
  Object.assign(device, { session: offered, counter: 0, lastDown: -1, answers: [], power: 0, repetitions: 1 });
}

function obey(commands) {
  const said = [];
  const answers = [];
  for (let at = 0; at < commands.length; ) {
    const cid = commands[at];
    const lengths = { 2: 2, 3: 4, 4: 1, 5: 4, 6: 0, 7: 5, 8: 1, 9: 1, 10: 4, 13: 5 };
    const body = commands.subarray(at + 1, at + 1 + lengths[cid]);
    said.push(commands.subarray(at, at + 1 + lengths[cid]).toString('hex'));
    if (cid === 3) {
      const dataRate = body[0] >> 4;
      const power = body[0] & 15;
      const can = power <= leastPower;
      if (can) Object.assign(device, { dataRate, power, repetitions: Math.max(1, body[3] & 15) });
      answers.push(3, can ? 7 : 3);
    } else if (cid === 6) answers.push(6, 200, 5);
    else if (cid === 4) answers.push(4);
    else if (cid === 5) answers.push(5, 7);
    else if (cid === 7) answers.push(7, 3);
    else if (cid === 8) answers.push(8);
    else if (cid === 9) answers.push(9);
    else if (cid === 10) answers.push(10, 3);
    at += 1 + lengths[cid];
  }
  device.answers = answers;
  return said;
}

function hear(packet) {
  const frame = lora.fromWire(Buffer.from(packet.data, 'base64'));
  const { session } = device;
  const down = frame.FCnt.readUInt16BE(0);
  if (!lora.verifyMIC(frame, session.nwk)) return { foreign: true };
  if (down <= device.lastDown) return { counterAgain: down };
  device.lastDown = down;
  const port = frame.getFPort();
  const payload = frame.FRMPayload?.length ? lora.decrypt(frame, session.app, session.nwk) : Buffer.alloc(0);
  const commands = port === 0 ? payload : (frame.FOpts ?? Buffer.alloc(0));
  return { down, port, payload: payload.toString('hex'), ack: frame.getFCtrlACK(), mac: obey(commands) };
}

async function up(options) {
  const snr = bestSnr - 2 * device.power;
  const high = Buffer.alloc(2);
  high.writeUInt16LE(device.counter >> 16);
  const payload = Buffer.alloc(8);
  payload.writeUInt16BE(100 + (device.counter % 50), 0);
  payload.writeUInt16BE(90, 2);
  payload.writeUInt16BE(455, 4);
  payload.writeUInt16BE(3580, 6);
  const spoken = Buffer.concat([Buffer.from(device.answers), options]);
  const frame = lora.fromFields(
    {
      MType: 'Unconfirmed Data Up',
      DevAddr: device.session.address,
      FCtrl: { ADR: true, ACK: false, ADRACKReq: false, FPending: false },
      FCnt: device.counter & 0xffff,
      ...(spoken.length > 0 ? { FOpts: spoken } : {}),
      FPort: 2,
      payload,
    },
    device.session.app,
    device.session.nwk,
    undefined,
    high,
  );
  lastFrame = frame.PHYPayload;
  const used = { counter: device.counter, dataRate: device.dataRate, power: device.power, snr, repetitions: device.repetitions };
  device.answers = [];
  const got = answer();
  air(lastFrame, snr);
  device.counter += 1;
  const packet = await got;
  say({ up: used, heard: packet ? hear(packet) : null });
}

async function obeyLine(line) {
  const [word, ...rest] = line.split(' ');
  if (word === 'join') await join(Number(rest[0]));
  else if (word === 'up') for (let i = 0; i < Number(rest[0]); i++) await up(hex(rest[1] ?? ''));
  else if (word === 'snr') bestSnr = Number(rest[0]);
  else if (word === 'rate') device.dataRate = Number(rest[0]);
  else if (word === 'lose') loseEvery = Number(rest[0]);
  else if (word === 'least') leastPower = Number(rest[0]);
  else if (word === 'port') [servicePort] = rest;
  else if (word === 'gap') device.counter += Number(rest[0]);
  else if (word === 'again') air(lastFrame, bestSnr);
  if (word !== 'up' && word !== 'join') say({ done: line });
}

// One after the other, however fast they come.
let last = Promise.resolve();
createInterface({ input: process.stdin }).on('line', (line) => {
  last = last.then(() => obeyLine(line)).catch((error) => say({ error: String(error.stack) }));
});
socket.bind(0, '127.0.0.1', () => {
  pull();
  say({ listening: socket.address().port });
});
