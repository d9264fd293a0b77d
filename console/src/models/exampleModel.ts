/** What the editor for a new model begins with. */
export const exampleModel = {
  name: "Temperature and humidity sender",
  description: "Two channels on port 1.",
  intervalSeconds: 600,
  batteryChannel: null,
  layout: {
    messages: [
      {
        port: 1,
        fields: [
          { channel: "temperature", at: 0, type: "i16", scale: 0.1 },
          { channel: "humidity", at: 2, type: "u8" },
        ],
      },
    ],
  },
  channels: [
    { name: "temperature", title: "Temperature", quantity: "temperature", unit: "°C" },
    { name: "humidity", title: "Humidity", quantity: "humidity", unit: "%" },
  ],
};
