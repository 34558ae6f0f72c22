import { describe, expect, it } from 'vitest';
import { complete, getField, groupsOf, toKeep, withField } from './vehicleFields';

describe('fields of a vehicle', () => {
  const v = complete({
    kind: 'CAR',
    mass: 1000,
    width: 1.9,
    wheelbase: 2.5,
    cogHeight: 0.5,
    cogToFront: 1.2,
    engine: { curve: [], shiftRevs: 7000, limitRevs: 7200 },
    gearbox: { ratios: [3], finalDrive: 4, rollingRadius: 0.3, efficiency: 0.92, shiftTime: 0.1, drive: 'REAR' },
    tyres: { muX: 1.2, muY: 1.2, loadSensitivity: 0.05, rolling: 0.013 },
    aero: { cdA: 0.8, clA: 1 },
    brakes: { mostForce: 15000, frontShare: 0.6, engineBraking: 0.8 },
  });

  it('all lead to a number and back', () => {
    for (const f of groupsOf(v).flatMap((g) => g.fields)) {
      const next = withField(v, f.field, getField(v, f.field) + 1);
      expect(getField(next, f.field), f.field).toBeCloseTo(getField(v, f.field) + 1, 9);
      expect(Object.keys(next)).toEqual(Object.keys(v));
    }
  });

  it('of springs and device say nothing until one is entered', () => {
    expect(toKeep(v).ride).toBeUndefined();
    expect(toKeep(v).device).toBeUndefined();
    expect(toKeep(withField(v, 'ride.frequency', 2.4)).ride).toEqual({ frequency: 2.4, bump: 0, droop: 0 });
    const open = toKeep(withField(v, 'device.drag', 0.8));
    expect(open.device).toEqual({ drag: 0.8, downforce: 1 });
    expect(complete(open).device).toEqual({ drag: 0.8, downforce: 1 });
    expect(toKeep(v).fuel?.heating).toBe(43.4);
  });

  it('show the engine as it is heard while nobody said otherwise', () => {
    expect([getField(v, 'engine.cylinders'), getField(v, 'engine.strokes')]).toEqual([4, 4]);
    expect(toKeep(v).engine.cylinders).toBeUndefined();
    expect(toKeep(withField(v, 'engine.cylinders', 2)).engine).toMatchObject({ cylinders: 2, strokes: undefined });
  });

  it('leave out what the vehicle has not got', () => {
    const fields = groupsOf(v).flatMap((g) => g.fields.map((f) => f.field));
    expect(fields).not.toContain('leanLimit');
    expect(fields).not.toContain('boost.power');
    expect(fields).toContain('floor.rideHeight');
  });

  it('keep following the usual chassis until one of its numbers is entered', () => {
    const usual = {
      trackFront: 1.6,
      trackRear: 1.6,
      rollFront: 0.56,
      liftFront: 0.51,
      gripRear: 1.04,
      closedTorque: 40,
      brakeStep: 0.005,
      barStep: 0.01,
      wingStep: 0.03,
      wingDrag: 0.008,
    };
    const open = complete(v, usual);
    expect(getField(open, 'chassis.rollFront')).toBe(0.56);
    expect(toKeep(open, usual).chassis).toBeUndefined();
    const entered = withField(open, 'chassis.rollFront', 0.6);
    expect(toKeep(entered, usual).chassis?.rollFront).toBe(0.6);
    // What was entered before stays entered.
    expect(toKeep(complete({ ...v, chassis: usual }, usual)).chassis).toEqual(usual);
  });
});
