// A process of its own that asks the server for next to nothing, again and again, and notes the longest it had to
// wait: what the server does for others must not hold anybody up.
import { RawSocket } from './rawSocket.mjs';

const [url, cookie, sitting] = process.argv.slice(2);
const socket = await RawSocket.open(url, { cookie });
let longest = 0;
process.on('message', (what) => {
  if (what === 'read') process.send(longest);
  longest = 0;
});
process.send('ready');
for (;;) {
  const started = performance.now();
  await socket.ask('enter', { sitting });
  longest = Math.max(longest, performance.now() - started);
  await new Promise((resolve) => setTimeout(resolve, 5));
}
