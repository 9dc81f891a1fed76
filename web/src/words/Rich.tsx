/** A text in which what stands between <b> and </b> is important. */
export function Rich({ text }: { text: string }) {
  return text.split(/<b>|<\/b>/).map((part, i) =>
    i % 2 === 1 ? (
      <strong key={i} className="select-text">
        {part}
      </strong>
    ) : (
      part
    ),
  );
}
