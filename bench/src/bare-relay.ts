import { WebSocketServer } from 'ws';

/* The plainest thing that could work: whatever one sends, the others get. */
const server = new WebSocketServer({
  port: Number(process.argv[2]),
  host: '127.0.0.1',
  perMessageDeflate: false,
});
server.on('connection', (socket) => {
  socket.on('message', (data, isBinary) => {
    for (const other of server.clients)
      if (other !== socket) other.send(data, { binary: isBinary });
  });
});
server.on('listening', () => console.log('ready'));
