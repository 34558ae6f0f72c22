import { beforeEach, describe, expect, it } from 'vitest';
import { inLength, lapTime, metres, plain, plannedLap, radiusText, signed, speedText } from './units';

// The session module holds runes state; these tests read units before anyone has signed in.
beforeEach(() => undefined);

describe('numbers as drivers read them', () => {
  it('has a real minus and no minus zero', () => {
    expect(plain(-4.2, 1)).toBe('−4.2');
    expect(plain(-0.04, 1)).toBe('0.0');
    expect(signed(0.04, 1)).toBe('0.0');
    expect(signed(3)).toBe('+3');
  });

  it('parts thousands', () => {
    expect(plain(7450)).toBe('7\u202f450');
    expect(plain(1234567)).toBe('1\u202f234\u202f567');
  });

  it('says of a lap as planned what it leaves out', () => {
    expect(plannedLap({ seconds: 92.28, unmade: 0 })).toBe('1:32.28');
    expect(plannedLap({ seconds: 92.28, unmade: 1 })).toBe('1:32.28 but for 1 corner that cannot be made');
    expect(plannedLap({ seconds: 92.28, unmade: 2 })).toContain('2 corners');
  });

  it('shows lap times in minutes, also across a rounding', () => {
    expect(lapTime(92.556)).toBe('1:32.56');
    expect(lapTime(59.999)).toBe('1:00.00');
    expect(lapTime(605.1)).toBe('10:05.10');
  });

  it('reads km/h and metres before anything is chosen', () => {
    expect(speedText(100 / 3.6)).toBe('100 km/h');
    expect(metres(8)).toBe('8 m');
    expect(inLength(5)).toBe(5);
  });

  it('says how well a radius is known only where that is worse than a tenth', () => {
    expect(radiusText({ radius: 28, doubt: 0.14 })).toBe('28 m ± 4 m');
    expect(radiusText({ radius: 67, doubt: 0.1 })).toBe('67 m');
    expect(radiusText({ radius: 67, doubt: 0 })).toBe('67 m');
  });
});
