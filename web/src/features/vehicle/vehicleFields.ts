import type { Vehicle } from '../../api/api';
import { tell } from '../../words/tell';

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
      title: tell('vehicleFields.body'),
      fields: [
        f(tell('vehicleFields.mass_with_driver_and_fuel'), 'kg', 'mass', 5),
        f(tell('vehicleFields.width'), 'm', 'width', 0.01),
        f(tell('vehicleFields.wheelbase'), 'm', 'wheelbase', 0.01),
        f(tell('vehicleFields.centre_of_gravity_height'), 'm', 'cogHeight', 0.01),
        f(tell('vehicleFields.behind_the_front_axle'), 'm', 'cogToFront', 0.01),
        ...(motorcycle ? [f(tell('vehicleFields.lean_at_most'), '°', 'leanLimit', 1, DEG)] : []),
      ],
    },
    {
      title: tell('vehicleFields.grip_and_air'),
      fields: [
        f(tell('vehicleFields.grip_along'), '×', 'tyres.muX', 0.01),
        f(tell('vehicleFields.grip_across'), '×', 'tyres.muY', 0.01),
        f(tell('vehicleFields.grip_lost_with_load'), '', 'tyres.loadSensitivity', 0.01),
        f(tell('vehicleFields.rolling_resistance'), '%', 'tyres.rolling', 0.1, 100),
        f(tell('vehicleFields.drag_area'), 'm²', 'aero.cdA', 0.01),
        f(tell('vehicleFields.downforce_area'), 'm²', 'aero.clA', 0.05),
      ],
    },
    {
      title: tell('vehicleFields.engine_and_gearbox'),
      fields: [
        f(tell('vehicleFields.shift_at'), tell('vehicleFields.revs'), 'engine.shiftRevs', 50),
        f(tell('vehicleFields.limit_at'), tell('vehicleFields.revs'), 'engine.limitRevs', 50),
        f(tell('vehicleFields.cylinders'), '', 'engine.cylinders', 1),
        f(tell('vehicleFields.strokes'), '', 'engine.strokes', 2),
        f(tell('vehicleFields.final_drive'), ': 1', 'gearbox.finalDrive', 0.05),
        f(tell('vehicleFields.rolling_radius'), 'm', 'gearbox.rollingRadius', 0.001),
        f(tell('vehicleFields.reaches_the_wheels'), '%', 'gearbox.efficiency', 1, 100),
        f(tell('vehicleFields.shift_takes'), 's', 'gearbox.shiftTime', 0.01),
      ],
    },
    {
      title: tell('vehicleFields.brakes'),
      fields: [
        f(tell('vehicleFields.most_brake_force'), 'N', 'brakes.mostForce', 100),
        f(tell('vehicleFields.brakes_at_the_front'), '%', 'brakes.frontShare', 1, 100),
        f(tell('vehicleFields.throttle_shut_slows_by'), 'm/s²', 'brakes.engineBraking', 0.1),
      ],
    },
    {
      title: tell('vehicleFields.over_kerbs'),
      fields: [
        f(tell('vehicleFields.ride_height'), 'cm', 'floor.rideHeight', 0.5, 100),
        f(tell('vehicleFields.floor_width'), 'm', 'floor.width', 0.01),
        f(tell('vehicleFields.between_tyre_middles'), 'm', 'floor.track', 0.01),
        f(tell('vehicleFields.tyre_width'), 'cm', 'floor.tyreWidth', 1, 100),
      ],
    },
    {
      title: tell('vehicleFields.fuel'),
      fields: [
        f(tell('vehicleFields.in_the_tank_now'), 'l', 'fuel.load', 1),
        f(tell('vehicleFields.tank_holds'), 'l', 'fuel.capacity', 1),
        f(tell('vehicleFields.weighs'), 'kg/l', 'fuel.density', 0.01),
        f(tell('vehicleFields.holds'), 'MJ/kg', 'fuel.heating', 0.1),
        f(tell('vehicleFields.engine_makes_of_it'), '%', 'fuel.efficiency', 0.5, 100),
      ],
    },
    {
      title: tell('vehicleFields.seat'),
      fields: [
        f(tell('vehicleFields.eyes_over_the_road'), 'm', 'seat.eye', 0.05),
        f(tell('vehicleFields.seen_to_either_side'), '°', 'seat.halfAngle', 1, DEG),
      ],
    },
    {
      title: tell('vehicleFields.springs_where_known'),
      fields: [
        f(tell('vehicleFields.body_moves_at'), 'Hz', 'ride.frequency', 0.1),
        f(tell('vehicleFields.down_to_the_stops'), 'cm', 'ride.bump', 0.1, 100),
        f(tell('vehicleFields.up_until_a_wheel_hangs'), 'cm', 'ride.droop', 0.1, 100),
      ],
    },
    {
      title: tell('vehicleFields.drag_device_if_any'),
      fields: [
        f(tell('vehicleFields.drag_with_it_open'), '%', 'device.drag', 1, 100),
        f(tell('vehicleFields.downforce_with_it_open'), '%', 'device.downforce', 1, 100),
      ],
    },
  ];
  if (!motorcycle) {
    groups.push({
      title: tell('vehicleFields.two_axles'),
      fields: [
        f(tell('vehicleFields.front_track'), 'm', 'chassis.trackFront', 0.01),
        f(tell('vehicleFields.rear_track'), 'm', 'chassis.trackRear', 0.01),
        f(tell('vehicleFields.roll_held_at_the_front'), '%', 'chassis.rollFront', 1, 100),
        f(tell('vehicleFields.downforce_at_the_front'), '%', 'chassis.liftFront', 1, 100),
        f(tell('vehicleFields.rear_tyres_grip_to_front'), '%', 'chassis.gripRear', 1, 100),
        f(tell('vehicleFields.throttle_shut_holds'), 'Nm', 'chassis.closedTorque', 1),
        f(tell('vehicleFields.a_step_of_the_balance'), '%', 'chassis.brakeStep', 0.1, 100),
        f(tell('vehicleFields.a_step_of_the_front'), '%', 'chassis.barStep', 0.1, 100),
        f(tell('vehicleFields.a_step_of_the_wing'), 'm²', 'chassis.wingStep', 0.005),
        f(tell('vehicleFields.and_drag_with_it'), 'm²', 'chassis.wingDrag', 0.001),
      ],
    });
  }
  if (v.boost) {
    groups.push({
      title: tell('vehicleFields.boost'),
      fields: [
        f(tell('vehicleFields.power'), 'kW', 'boost.power', 1, 0.001),
        f(tell('vehicleFields.energy_a_lap'), 'kJ', 'boost.energyPerLap', 10, 0.001),
        f(tell('vehicleFields.of_braking_stored'), '%', 'boost.recovery', 1, 100),
      ],
    });
  }
  return groups;
}

/** From where a driver usually looks, as the computation takes it. */
const usualSeat = (v: Vehicle) => ({ eye: v.kind === 'MOTORCYCLE' ? 1.1 : 1, halfAngle: 40 / DEG });

/** Cylinders and strokes of an engine of which neither is said, as its tone takes them. */
const USUAL_ENGINE = 4;

/** A vehicle with the parts that may be missing filled in as usual, so that they can be edited. */
export function complete(v: Vehicle, chassis?: Vehicle['chassis']): Vehicle {
  const bike = v.kind === 'MOTORCYCLE';
  return {
    ...v,
    engine: {
      ...v.engine,
      cylinders: v.engine.cylinders ?? USUAL_ENGINE,
      strokes: v.engine.strokes ?? USUAL_ENGINE,
    },
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
    seat: v.seat ?? usualSeat(v),
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
    engine: {
      ...v.engine,
      cylinders: v.engine.cylinders === USUAL_ENGINE ? undefined : v.engine.cylinders,
      strokes: v.engine.strokes === USUAL_ENGINE ? undefined : v.engine.strokes,
    },
    chassis: JSON.stringify(v.chassis) === JSON.stringify(usual) ? undefined : v.chassis,
    seat: JSON.stringify(v.seat) === JSON.stringify(usualSeat(v)) ? undefined : v.seat,
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
