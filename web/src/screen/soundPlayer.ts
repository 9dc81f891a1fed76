import type { SoundPart } from '@doodla/core';
import { canDecodeSound } from '../secure/secureOnly';

/** Played so much later than it comes, so that an uneven line is not heard; seconds. */
const AHEAD = 0.15;

/** Plays the sound of a screen that somebody else shows, piece by piece. */
export class SoundPlayer {
  /** Seconds that have been given to the loudspeaker. */
  played = 0;
  private readonly audio = new AudioContext();
  private readonly out = this.audio.createMediaStreamDestination();
  private decoder: AudioDecoder | undefined;
  private next = 0;

  /** What is played, as a track that can be recorded. */
  get track(): MediaStreamTrack {
    return this.out.stream.getAudioTracks()[0]!;
  }

  take({ at, rate, channels }: SoundPart, bytes: ArrayBuffer): void {
    if (!canDecodeSound()) return;
    if (this.decoder?.state !== 'configured') {
      this.decoder = new AudioDecoder({
        output: (data) => this.play(data),
        error: () => (this.decoder = undefined),
      });
      this.decoder.configure({ codec: 'opus', sampleRate: rate, numberOfChannels: channels });
    }
    // Heard only after the person has touched the page, as browsers want it.
    if (this.audio.state === 'suspended') void this.audio.resume();
    this.decoder.decode(new EncodedAudioChunk({ type: 'key', timestamp: at, data: bytes }));
  }

  close(): void {
    if (this.decoder?.state === 'configured') this.decoder.close();
    void this.audio.close();
  }

  private play(data: AudioData): void {
    const { numberOfChannels, numberOfFrames, sampleRate } = data;
    const piece = this.audio.createBuffer(numberOfChannels, numberOfFrames, sampleRate);
    for (let channel = 0; channel < numberOfChannels; channel++) {
      const samples = new Float32Array(numberOfFrames);
      data.copyTo(samples, { planeIndex: channel, format: 'f32-planar' });
      piece.copyToChannel(samples, channel);
    }
    data.close();
    const now = this.audio.currentTime;
    if (this.next < now) this.next = now + AHEAD;
    const source = new AudioBufferSourceNode(this.audio, { buffer: piece });
    source.connect(this.audio.destination);
    source.connect(this.out);
    source.start(this.next);
    this.next += piece.duration;
    this.played += piece.duration;
  }
}
