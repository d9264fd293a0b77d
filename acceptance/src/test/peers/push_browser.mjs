// A browser with the service that hands messages to it, by others' implementation of RFC 8188 and RFC 8291. It prints
// what it hands out, then each message: who sent it, and what it said. A status on standard input is what it
// answers from then on: 410 when it is gone.
import crypto from "node:crypto";
import http from "node:http";
import readline from "node:readline";
import ece from "http_ece";

const keys = crypto.createECDH("prime256v1");
keys.generateKeys();
const secret = crypto.randomBytes(16);
let answer = 201;

function say(what) {
  console.log(JSON.stringify(what));
}

/** Whether a voucher is for this service, not over, and signed by the key beside it (RFC 8292). */
function vouched(authorization) {
  const [, token, key] = /^vapid t=([^,]+), k=(.+)$/.exec(authorization) ?? [];
  if (!token) {
    return undefined;
  }
  const [head, claims, signature] = token.split(".");
  const point = Buffer.from(key, "base64url");
  const jwk = {
    kty: "EC",
    crv: "P-256",
    x: point.subarray(1, 33).toString("base64url"),
    y: point.subarray(33).toString("base64url"),
  };
  const signed = crypto.verify(
    "sha256",
    Buffer.from(head + "." + claims),
    { key: crypto.createPublicKey({ key: jwk, format: "jwk" }), dsaEncoding: "ieee-p1363" },
    Buffer.from(signature, "base64url"),
  );
  const said = JSON.parse(Buffer.from(claims, "base64url"));
  const hours = (said.exp - Date.now() / 1000) / 3600;
  return signed && said.aud === origin && hours > 0 && hours <= 24 ? key : undefined;
}

const server = http.createServer((request, response) => {
  const parts = [];
  request.on("data", (part) => parts.push(part));
  request.on("end", () => {
    const sender = vouched(request.headers.authorization ?? "");
    if (answer === 201 && !sender) {
      response.writeHead(403).end();
      return;
    }
    if (answer === 201) {
      const clear = ece.decrypt(Buffer.concat(parts), { version: "aes128gcm", privateKey: keys, authSecret: secret });
      const { ttl, urgency, topic } = request.headers;
      say({ sender, ttl, urgency, topic, said: JSON.parse(clear) });
    } else {
      say({ answered: answer });
    }
    response.writeHead(answer).end();
  });
});

let origin;
server.listen(0, "127.0.0.1", () => {
  origin = `http://127.0.0.1:${server.address().port}`;
  say({
    endpoint: origin + "/push/" + crypto.randomBytes(12).toString("hex"),
    key: keys.getPublicKey("base64url"),
    secret: secret.toString("base64url"),
  });
});
readline.createInterface({ input: process.stdin }).on("line", (line) => {
  answer = Number(line);
  say({ answers: answer });
});
