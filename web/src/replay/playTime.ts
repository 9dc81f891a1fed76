/** A time of a playback as it is told, such as *1:05* or *1:00:00*. */
export function playTime(milliseconds: number): string {
  const seconds = Math.floor(milliseconds / 1000);
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  const rest = two(seconds % 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${rest}` : `${minutes}:${rest}`;
}
