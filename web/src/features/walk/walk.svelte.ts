import type { LayoutView, RoadView } from '../../api/api';
import { tell } from '../../words/tell';

/** A place on the earth as the device gives it. */
export interface Fix {
  latitude: number;
  longitude: number;
  accuracy: number;
}

/** Where the places come from: the device, or somebody who walks in its stead. */
export interface Walker {
  start(onfix: (fix: Fix) => void, onproblem: (words: string) => void): () => void;
}

export const deviceWalker: Walker = {
  start(onfix, onproblem) {
    if (!('geolocation' in navigator)) {
      onproblem(tell('walk.this_device_gives_no_position'));
      return () => undefined;
    }
    const watch = navigator.geolocation.watchPosition(
      (p) => onfix({ latitude: p.coords.latitude, longitude: p.coords.longitude, accuracy: p.coords.accuracy }),
      (e) =>
        onproblem(
          e.code === e.PERMISSION_DENIED
            ? tell('walk.the_position_is_not_allowed')
            : tell('walk.no_position_yet_go_by'),
        ),
      { enableHighAccuracy: true, maximumAge: 1000, timeout: 20_000 },
    );
    return () => navigator.geolocation.clearWatch(watch);
  },
};

const METRES_OFF = 2.5;

/**
 * Walks along the road in the stead of a device, some metres off it as a phone's position is.
 *
 * @param speed m/s
 */
export function simulatedWalker(
  road: RoadView,
  place: NonNullable<LayoutView['place']>,
  from: number,
  speed = 7,
  every = 400,
): Walker {
  return {
    start(onfix) {
      let station = from;
      let wander = 0;
      const step = () => {
        station = (station + (speed * every) / 1000) % road.length;
        wander = Math.max(-METRES_OFF, Math.min(METRES_OFF, wander + Math.sin(station / 7)));
        const i = Math.floor(station / road.step) % road.x.length;
        const h = road.heading[i] ?? 0;
        const along = station - i * road.step;
        const x = (road.x[i] ?? 0) + along * Math.cos(h) - wander * Math.sin(h);
        const y = (road.y[i] ?? 0) + along * Math.sin(h) + wander * Math.cos(h);
        onfix({
          latitude: place.latitude + y / place.northPerDegree,
          longitude: place.longitude + x / place.eastPerDegree,
          accuracy: METRES_OFF,
        });
      };
      const timer = setInterval(step, every);
      step();
      return () => clearInterval(timer);
    },
  };
}

/**
 * The place on the road nearest to a fix; near the last one known, so that a road that passes near
 * itself does not jump. Null when it is farther from the road than a walker can be.
 */
export function onRoad(
  road: RoadView,
  place: NonNullable<LayoutView['place']>,
  fix: Fix,
  around: number | null,
): { station: number; offset: number } | null {
  const x = (fix.longitude - place.longitude) * place.eastPerDegree;
  const y = (fix.latitude - place.latitude) * place.northPerDegree;
  const n = road.x.length;
  const search = (from: number, count: number) => {
    let best = 0;
    let least = Infinity;
    for (let k = from; k < from + count; k++) {
      const i = ((k % n) + n) % n;
      const d = (x - (road.x[i] ?? 0)) ** 2 + (y - (road.y[i] ?? 0)) ** 2;
      if (d < least) {
        least = d;
        best = i;
      }
    }
    return { best, far: Math.sqrt(least) };
  };
  const reach = Math.ceil(60 / road.step);
  let found = around === null ? search(0, n) : search(Math.round(around / road.step) - reach, 2 * reach + 1);
  if (found.far > 60) found = search(0, n);
  if (found.far > 120) return null;
  const i = found.best;
  const h = road.heading[i] ?? 0;
  const dx = x - (road.x[i] ?? 0);
  const dy = y - (road.y[i] ?? 0);
  const station = i * road.step + dx * Math.cos(h) + dy * Math.sin(h);
  return {
    station: ((station % road.length) + road.length) % road.length,
    offset: -dx * Math.sin(h) + dy * Math.cos(h),
  };
}
