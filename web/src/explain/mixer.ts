/** What is heard from several places at once, as one stream of one voice that can be recorded. */
export class Mixer {
  private readonly context: AudioContext;
  private readonly out: MediaStreamAudioDestinationNode;
  private readonly heard = new Map<MediaStreamTrack, MediaStreamAudioSourceNode>();

  /** In a context that is there already, if one is: each one costs time. */
  constructor(private readonly given?: AudioContext) {
    this.context = given ?? new AudioContext();
    this.out = new MediaStreamAudioDestinationNode(this.context, { channelCount: 1 });
    // Recording was begun by a tap, so it may run; where it does not, nothing is heard, which the level shows.
    this.context.resume().catch(() => undefined);
  }

  get stream(): MediaStream {
    return this.out.stream;
  }

  /** Lets these be heard from now on, and no others. */
  hear(tracks: readonly MediaStreamTrack[]): void {
    for (const [track, source] of this.heard)
      if (!tracks.includes(track)) {
        source.disconnect();
        this.heard.delete(track);
      }
    for (const track of tracks) {
      if (this.heard.has(track)) continue;
      const source = this.context.createMediaStreamSource(new MediaStream([track]));
      source.connect(this.out);
      this.heard.set(track, source);
    }
  }

  close(): void {
    this.hear([]);
    // It is closed already.
    if (!this.given) this.context.close().catch(() => undefined);
  }
}
