// A socket server that sends, once asked, the messages that it was given, and does nothing else.
import { once } from 'node:events';
import { WebSocketServer } from 'ws';

const [texts] = await once(process, 'message');
const server = new WebSocketServer({ port: 0, perMessageDeflate: false });
server.on('connection', (socket) => {
  socket.send('0{}');
  socket.on('message', (data) => {
    const text = data.toString();
    if (text.startsWith('40')) socket.send('40{}');
    else if (text.startsWith('42')) for (const each of texts) socket.send(each);
  });
});
await once(server, 'listening');
process.send(server.address().port);
