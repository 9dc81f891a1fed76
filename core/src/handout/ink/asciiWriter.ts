const [SPACE, ZERO, MINUS, POINT] = [32, 48, 45, 46];
const FIRST_ROOM = 1 << 12;
/** Most characters of two numbers below, with what is between. */
const MOST_ROOM = 24;
/** From here on whole numbers are made text by the engine. */
const LARGE = 1e9;

/** Text of ASCII characters as bytes, written from its first to its last. Numbers need no strings on their way. */
export class AsciiWriter {
  private room = new Uint8Array(FIRST_ROOM);
  private length = 0;

  /** Adds a text. */
  text(text: string): void {
    this.need(text.length);
    for (let i = 0; i < text.length; i++) this.room[this.length++] = text.charCodeAt(i);
  }

  /** Adds text that is bytes already. */
  bytesOf(text: Uint8Array): void {
    this.need(text.length);
    this.room.set(text, this.length);
    this.length += text.length;
  }

  /** Adds two whole numbers in decimal digits, a space after each. */
  pair(x: number, y: number): void {
    if (!(Math.abs(x) < LARGE && Math.abs(y) < LARGE)) return this.text(`${x} ${y} `);
    this.need(MOST_ROOM);
    const { room } = this;
    const middle = digits(room, x, this.length);
    room[middle] = SPACE;
    const end = digits(room, y, middle + 1);
    room[end] = SPACE;
    this.length = end + 1;
  }

  /** Adds a number of tenths as the number that they are, and a space: 32 as `3.2 `, 30 as `3 `. */
  tenths(value: number): void {
    if (!(Math.abs(value) < LARGE)) return this.text(`${value / 10} `);
    this.need(MOST_ROOM);
    const { room } = this;
    const rest = Math.abs(value) % 10;
    // What is below one keeps its sign, which a whole number of none would lose.
    if (value < 0 && value > -10) room[this.length++] = MINUS;
    let end = digits(room, (value - Math.sign(value) * rest) / 10, this.length);
    if (rest > 0) {
      room[end++] = POINT;
      room[end++] = ZERO + rest;
    }
    room[end] = SPACE;
    this.length = end + 1;
  }

  /** All that was written; no copy, so it is good until more is. */
  bytes(): Uint8Array {
    return this.room.subarray(0, this.length);
  }

  private need(more: number): void {
    if (this.length + more <= this.room.length) return;
    const larger = new Uint8Array(2 * (this.room.length + more));
    larger.set(this.room);
    this.room = larger;
  }
}

/** Puts a whole number smaller than `LARGE` at a place, and gives the place after it. */
function digits(room: Uint8Array, value: number, at: number): number {
  let left = value | 0;
  let first = at;
  if (left < 0) {
    room[first++] = MINUS;
    left = -left;
  }
  let end = first + 1;
  for (let bound = 10; left >= bound; bound *= 10) end += 1;
  for (let place = end - 1; place > first; place--) {
    const next = (left / 10) | 0;
    room[place] = ZERO + left - 10 * next;
    left = next;
  }
  room[first] = ZERO + left;
  return end;
}
