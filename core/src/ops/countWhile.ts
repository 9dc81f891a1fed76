/** How many of the first `count` numbers 0, 1, 2 … something holds for, which once it fails holds no more. By bisection. */
export function countWhile(count: number, holds: (index: number) => boolean): number {
  let [low, high] = [0, count];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) low = middle + 1;
    else high = middle;
  }
  return low;
}
