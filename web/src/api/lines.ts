/** An answer that comes in lines of JSON, line by line as they come. */
export async function* linesOf<Line>(body: ReadableStream<Uint8Array>): AsyncIterable<Line> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let rest = '';
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    const lines = (rest + decoder.decode(piece.value, { stream: true })).split('\n');
    rest = lines.pop()!;
    for (const line of lines) if (line !== '') yield JSON.parse(line) as Line;
  }
}
