import { firing } from './rehearse';

/** The engine and the wind, made in the browser: a tone by revs, a hiss by speed. */
export class Tone {
  private readonly engine: OscillatorNode;
  private readonly second: OscillatorNode;
  private readonly wind: GainNode;
  private readonly out: GainNode;

  constructor(
    private readonly context: BaseAudioContext,
    private readonly cylinders: number,
    private readonly strokes: number,
  ) {
    this.out = context.createGain();
    this.out.gain.value = 0;
    this.out.connect(context.destination);
    const body = context.createGain();
    body.gain.value = 0.5;
    body.connect(this.out);
    this.engine = context.createOscillator();
    this.engine.type = 'sawtooth';
    this.engine.connect(body);
    // An octave below, softly: it tells the engine from a whistle.
    const low = context.createGain();
    low.gain.value = 0.3;
    this.second = context.createOscillator();
    this.second.type = 'sine';
    this.second.connect(low);
    low.connect(this.out);
    const noise = context.createBufferSource();
    const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
    const samples = buffer.getChannelData(0);
    let seed = 1;
    for (let i = 0; i < samples.length; i++) {
      seed = (seed * 16807) % 2147483647;
      samples[i] = seed / 1073741823.5 - 1;
    }
    noise.buffer = buffer;
    noise.loop = true;
    const filter = context.createBiquadFilter();
    filter.type = 'bandpass';
    filter.frequency.value = 900;
    this.wind = context.createGain();
    this.wind.gain.value = 0;
    noise.connect(filter);
    filter.connect(this.wind);
    this.wind.connect(this.out);
    this.engine.start();
    this.second.start();
    noise.start();
  }

  /** Sounds as the engine does now. */
  set(revs: number, speed: number, at = this.context.currentTime): void {
    const hertz = firing(revs, this.cylinders, this.strokes);
    this.engine.frequency.setValueAtTime(hertz, at);
    this.second.frequency.setValueAtTime(hertz / 2, at);
    this.wind.gain.setValueAtTime(Math.min(0.35, (speed / 90) ** 2 * 0.35), at);
  }

  loud(on: boolean): void {
    this.out.gain.setTargetAtTime(on ? 0.12 : 0, this.context.currentTime, 0.05);
  }
}

/** A short click at a moment of the sound's own clock. */
export function click(context: BaseAudioContext, at: number, to: AudioNode): void {
  const tone = context.createOscillator();
  const loud = context.createGain();
  tone.frequency.value = 1200;
  loud.gain.setValueAtTime(0, at);
  loud.gain.linearRampToValueAtTime(0.4, at + 0.002);
  loud.gain.exponentialRampToValueAtTime(0.001, at + 0.05);
  tone.connect(loud);
  loud.connect(to);
  tone.start(at);
  tone.stop(at + 0.06);
}
