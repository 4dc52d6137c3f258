// Runs on the audio thread: hands every block of samples on, unchanged, to whoever holds the other end of the port.
class Capture extends AudioWorkletProcessor {
  constructor() {
    super();
    this.out = null;
    this.held = [];
    this.length = 0;
    this.port.onmessage = ({ data }) => {
      this.out = data.port;
    };
  }

  process(inputs) {
    const input = inputs[0];
    if (!this.out || input.length === 0) return true;
    this.held.push(input.map((channel) => channel.slice()));
    this.length += input[0].length;
    // Some 20 ms at a time: a message per 128 samples would be 375 a second.
    if (this.length >= 1024) {
      const blocks = input.map((_, c) => {
        const block = new Float32Array(this.length);
        let at = 0;
        for (const part of this.held) {
          block.set(part[c] ?? part[0], at);
          at += part[0].length;
        }
        return block;
      });
      this.held = [];
      this.length = 0;
      this.out.postMessage(
        blocks,
        blocks.map((b) => b.buffer),
      );
    }
    return true;
  }
}

registerProcessor('capture', Capture);
