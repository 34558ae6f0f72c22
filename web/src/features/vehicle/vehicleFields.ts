import type { Vehicle } from '../../api/api';

/** A number of a vehicle that can be edited; `scale` turns what is kept into what is shown. */
export interface Field {
  label: string;
  unit: string;
  /** Where it stands in the vehicle, as the server names it: `tyres.muX`. */
  field: string;
  step: number;
  scale: number;
}

export interface Group {
  title: string;
  fields: Field[];
}

const DEG = 180 / Math.PI;
const f = (label: string, unit: string, field: string, step: number, scale = 1): Field => ({
  label,
  unit,
  field,
  step,
  scale,
});

/** Fields in groups; those that a vehicle does not have are left out. */
export function groupsOf(v: Vehicle): Group[] {
  const motorcycle = v.kind === 'MOTORCYCLE';
  const groups: Group[] = [
    {
      title: 'Body',
      fields: [
        f('Mass with driver and fuel', 'kg', 'mass', 5),
        f('Width', 'm', 'width', 0.01),
        f('Wheelbase', 'm', 'wheelbase', 0.01),
        f('Centre of gravity, height', 'm', 'cogHeight', 0.01),
        f('… behind the front axle', 'm', 'cogToFront', 0.01),
        ...(motorcycle ? [f('Lean at most', '°', 'leanLimit', 1, DEG)] : []),
      ],
    },
    {
      title: 'Grip and air',
      fields: [
        f('Grip along', '×', 'tyres.muX', 0.01),
        f('Grip across', '×', 'tyres.muY', 0.01),
        f('Grip lost with load', '', 'tyres.loadSensitivity', 0.01),
        f('Rolling resistance', '%', 'tyres.rolling', 0.1, 100),
        f('Drag area', 'm²', 'aero.cdA', 0.01),
        f('Downforce area', 'm²', 'aero.clA', 0.05),
      ],
    },
    {
      title: 'Engine and gearbox',
      fields: [
        f('Shift at', 'revs', 'engine.shiftRevs', 50),
        f('Limit at', 'revs', 'engine.limitRevs', 50),
        f('Cylinders', '', 'engine.cylinders', 1),
        f('Strokes', '', 'engine.strokes', 2),
        f('Final drive', ': 1', 'gearbox.finalDrive', 0.05),
        f('Rolling radius', 'm', 'gearbox.rollingRadius', 0.001),
        f('Reaches the wheels', '%', 'gearbox.efficiency', 1, 100),
        f('Shift takes', 's', 'gearbox.shiftTime', 0.01),
      ],
    },
    {
      title: 'Brakes',
      fields: [
        f('Most brake force', 'N', 'brakes.mostForce', 100),
        f('Brakes at the front', '%', 'brakes.frontShare', 1, 100),
        f('Throttle shut slows by', 'm/s²', 'brakes.engineBraking', 0.1),
      ],
    },
    {
      title: 'Over kerbs',
      fields: [
        f('Ride height', 'cm', 'floor.rideHeight', 0.5, 100),
        f('Floor width', 'm', 'floor.width', 0.01),
        f('Between tyre middles', 'm', 'floor.track', 0.01),
        f('Tyre width', 'cm', 'floor.tyreWidth', 1, 100),
      ],
    },
    {
      title: 'Fuel',
      fields: [
        f('In the tank now', 'l', 'fuel.load', 1),
        f('Tank holds', 'l', 'fuel.capacity', 1),
        f('Weighs', 'kg/l', 'fuel.density', 0.01),
        f('Holds', 'MJ/kg', 'fuel.heating', 0.1),
        f('Engine makes of it', '%', 'fuel.efficiency', 0.5, 100),
      ],
    },
    {
      title: 'Springs, where known',
      fields: [
        f('Body moves at', 'Hz', 'ride.frequency', 0.1),
        f('Down to the stops', 'cm', 'ride.bump', 0.1, 100),
        f('Up until a wheel hangs', 'cm', 'ride.droop', 0.1, 100),
      ],
    },
    {
      title: 'Drag device, if any',
      fields: [
        f('Drag with it open', '%', 'device.drag', 1, 100),
        f('Downforce with it open', '%', 'device.downforce', 1, 100),
      ],
    },
  ];
  if (!motorcycle) {
    groups.push({
      title: 'Two axles',
      fields: [
        f('Front track', 'm', 'chassis.trackFront', 0.01),
        f('Rear track', 'm', 'chassis.trackRear', 0.01),
        f('Roll held at the front', '%', 'chassis.rollFront', 1, 100),
        f('Downforce at the front', '%', 'chassis.liftFront', 1, 100),
        f('Rear tyres grip, to front', '%', 'chassis.gripRear', 1, 100),
        f('Throttle shut holds', 'Nm', 'chassis.closedTorque', 1),
        f('A step of the balance', '%', 'chassis.brakeStep', 0.1, 100),
        f('A step of the front bar', '%', 'chassis.barStep', 0.1, 100),
        f('A step of the wing, down', 'm²', 'chassis.wingStep', 0.005),
        f('… and drag with it', 'm²', 'chassis.wingDrag', 0.001),
      ],
    });
  }
  if (v.boost) {
    groups.push({
      title: 'Boost',
      fields: [
        f('Power', 'kW', 'boost.power', 1, 0.001),
        f('Energy a lap', 'kJ', 'boost.energyPerLap', 10, 0.001),
        f('Of braking, stored', '%', 'boost.recovery', 1, 100),
      ],
    });
  }
  return groups;
}

/** A vehicle with the parts that may be missing filled in as usual, so that they can be edited. */
export function complete(v: Vehicle, chassis?: Vehicle['chassis']): Vehicle {
  const bike = v.kind === 'MOTORCYCLE';
  return {
    ...v,
    floor:
      v.floor ??
      (bike
        ? { rideHeight: 0.12, width: 0.3, track: 0, tyreWidth: 0.19 }
        : { rideHeight: 0.09, width: v.width - 0.5, track: v.width - 0.27, tyreWidth: 0.25 }),
    chassis: v.chassis ?? chassis,
    fuel: {
      ...(v.fuel ?? { load: bike ? 12 : 40, capacity: bike ? 17 : 80, density: 0.75 }),
      heating: v.fuel?.heating ?? 43.4,
      efficiency: v.fuel?.efficiency ?? 0.3,
    },
    ride: v.ride ?? { frequency: 0, bump: 0, droop: 0 },
    device: v.device ?? { drag: 1, downforce: 1 },
  };
}

/**
 * The vehicle to keep: a chassis that is just the usual one goes on following the other numbers, springs of which
 * nothing is said are not known, and a device that takes nothing away is none.
 */
export function toKeep(v: Vehicle, usual?: Vehicle['chassis']): Vehicle {
  const { ride, device } = v;
  return {
    ...v,
    chassis: JSON.stringify(v.chassis) === JSON.stringify(usual) ? undefined : v.chassis,
    ride: ride && ride.frequency + ride.bump + ride.droop > 0 ? ride : undefined,
    device: device && (device.drag !== 1 || device.downforce !== 1) ? device : undefined,
  };
}

export function getField(v: Vehicle, field: string): number {
  const [a = '', b] = field.split('.');
  const part = (v as unknown as Record<string, unknown>)[a];
  const value = b ? (part as Record<string, unknown> | null | undefined)?.[b] : part;
  return typeof value === 'number' ? value : 0;
}

export function withField(v: Vehicle, field: string, value: number): Vehicle {
  const [a = '', b] = field.split('.');
  const whole = v as unknown as Record<string, unknown>;
  const next = b ? { ...(whole[a] as Record<string, unknown>), [b]: value } : value;
  return { ...whole, [a]: next } as unknown as Vehicle;
}
