// As little of a Socket.IO client as a load needs (Engine.IO protocol 4, Socket.IO protocol 5), so that a thousand
// of them fit beside the server that is measured.
import { WebSocket } from 'ws';

export class RawSocket {
  /** Bytes that all of them have received. */
  static received = 0;
  #socket;
  #acks = new Map();
  #next = 0;
  /** Called with every event. */
  onEvent = () => undefined;
  /** Called with the text of every event first; true where that is enough and it need not be read. */
  onText = () => false;

  /** Connects; `auth` goes along as a browser's would, and what lesson it is about. */
  static open(url, { path = '/live', auth = {}, cookie, about } = {}) {
    return new Promise((resolve, reject) => {
      const raw = new RawSocket();
      const address = `${url.replace(/^http/, 'ws')}${path}/?EIO=4&transport=websocket${about ? `&for=${about}` : ''}`;
      raw.#socket = new WebSocket(address, {
        perMessageDeflate: false,
        ...(cookie && { headers: { cookie } }),
      });
      raw.#socket.on('error', reject);
      raw.#socket.on('message', (data) => raw.#take(data.toString(), auth, () => resolve(raw), reject));
    });
  }

  emit(event, message) {
    this.#socket.send(`42${JSON.stringify([event, message])}`);
  }

  async ask(event, message) {
    const id = this.#next++;
    const reply = await new Promise((resolve) => {
      this.#acks.set(id, resolve);
      this.#socket.send(`42${id}${JSON.stringify([event, message])}`);
    });
    if (reply?.error) throw new Error(reply.error.message);
    return reply;
  }

  close() {
    this.#socket.close();
  }

  #take(text, auth, connected, reject) {
    RawSocket.received += Buffer.byteLength(text);
    if (text === '2') this.#socket.send('3');
    else if (text[0] === '0') this.#socket.send(`40${JSON.stringify(auth)}`);
    else if (text.startsWith('40')) connected();
    else if (text.startsWith('44')) reject(new Error(text.slice(2)));
    else if (text.startsWith('42') && this.onText(text)) return;
    else if (text.startsWith('42')) this.onEvent(...JSON.parse(text.slice(2)));
    else if (text.startsWith('43')) {
      const at = text.indexOf('[');
      const id = Number(text.slice(2, at));
      this.#acks.get(id)?.(JSON.parse(text.slice(at))[0]);
      this.#acks.delete(id);
    }
  }
}
