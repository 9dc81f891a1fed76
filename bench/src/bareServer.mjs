// A Socket.IO server that passes every message on as it is, for comparison.
import { Server } from 'socket.io';

const server = new Server(0, { transports: ['websocket'], perMessageDeflate: false });
server.on('connection', (socket) => {
  socket.on('draw', ({ log, page, ...part }) =>
    socket.broadcast.emit('drawn', { log: log.id, page, parts: [{ ...part, author: socket.id }] }),
  );
  socket.on('submit', (message, answer) => answer({}));
});
process.send(server.httpServer.address().port);
