// A film of a lap, drawn from the driver's seat and encoded in the browser: the scene is known to the metre.
// Run after the source of the muxer. arguments: { lap, reference, from, seconds, rate, wide, high, degrees }, done(base64 or "failed: …")
const [wish, done] = arguments;
(async () => {
  const get = async (url) => (await fetch(url)).json();
  const [road, trace, reference] = await Promise.all([
    get(`/api/references/${wish.reference}/road`),
    get(`/api/laps/${wish.lap}/trace`),
    get(`/api/references/${wish.reference}`),
  ]);
  const { wide, high, rate } = wish;
  const focal = wide / 2 / Math.tan((wish.degrees * Math.PI) / 360);
  const EYE = 1.2;
  const n = road.x.length;
  const roadAt = (values, s) => {
    const at = ((((s / road.step) % n) + n) % n);
    const i = Math.floor(at);
    const next = (i + 1) % n;
    return values[i] + (at - i) * (values[next] - values[i]);
  };
  const heading = (s) => {
    const i = Math.floor((((s / road.step) % n) + n) % n);
    const j = (i + 1) % n;
    return Math.atan2(road.y[j] - road.y[i], road.x[j] - road.x[i]);
  };
  const plane = (s, left) => {
    const h = heading(s);
    return [roadAt(road.x, s) - left * Math.sin(h), roadAt(road.y, s) + left * Math.cos(h)];
  };
  const offset = (s) => {
    if (!trace.offset.length) return 0;
    const at = ((s / trace.step) % trace.offset.length + trace.offset.length) % trace.offset.length;
    const i = Math.floor(at);
    return trace.offset[i] + (at - i) * (trace.offset[(i + 1) % trace.offset.length] - trace.offset[i]);
  };
  const pose = (s) => {
    const a = plane(s - 3, offset(s - 3));
    const b = plane(s + 3, offset(s + 3));
    return { at: plane(s, offset(s)), heading: Math.atan2(b[1] - a[1], b[0] - a[0]) };
  };
  const stationAt = (t) => {
    let i = 0;
    while (i < trace.times.length - 2 && trace.times[i + 1] <= t) i++;
    const span = trace.times[i + 1] - trace.times[i];
    return (i + (span > 0 ? (t - trace.times[i]) / span : 0)) * trace.step;
  };
  const standing = (l) =>
    plane(l.station, l.left ? roadAt(road.left, l.station) + l.out : -roadAt(road.right, l.station) - l.out);
  const canvas = new OffscreenCanvas(wide, high);
  const c = canvas.getContext('2d');
  const draw = (frame, s) => {
    const eye = pose(s);
    const cos = Math.cos(eye.heading);
    const sin = Math.sin(eye.heading);
    // Ahead, to the right, up → the picture.
    const shown = ([x, y], up) => {
      const dx = x - eye.at[0];
      const dy = y - eye.at[1];
      const ahead = dx * cos + dy * sin;
      const right = dx * sin - dy * cos;
      return ahead > 0.8 ? [wide / 2 + (focal * right) / ahead, high / 2 - (focal * (up - EYE)) / ahead, ahead] : null;
    };
    c.fillStyle = '#9fb7c9';
    c.fillRect(0, 0, wide, high / 2);
    c.fillStyle = '#5d7a4a';
    c.fillRect(0, high / 2, wide, high / 2);
    for (let d = 220; d > -4; d -= d > 12 ? 4 : 0.5) {
      const next = d - (d > 12 ? 4 : 0.5);
      const four = [
        plane(s + d, roadAt(road.left, s + d)),
        plane(s + d, -roadAt(road.right, s + d)),
        plane(s + next, -roadAt(road.right, s + next)),
        plane(s + next, roadAt(road.left, s + next)),
      ].map((p) => shown(p, 0));
      if (four.some((p) => p === null)) continue;
      c.fillStyle = Math.floor((s + d) / 4) % 4 ? '#55565a' : '#4f5054';
      c.beginPath();
      four.forEach((p, i) => (i ? c.lineTo(p[0], p[1]) : c.moveTo(p[0], p[1])));
      c.fill();
    }
    for (const l of reference.things.landmarks) {
      const place = standing(l);
      const foot = shown(place, 0);
      const top = shown(place, Math.max(0.5, l.height));
      if (!foot || !top || foot[2] > 260) continue;
      c.fillStyle = { BOARD: '#f4f1e4', TREE: '#2d4a23', POST: '#c44f2c' }[l.kind] ?? '#31455c';
      const width = Math.max(2, (focal * (l.kind === 'TREE' ? 1.5 : 0.8)) / foot[2]);
      c.fillRect(top[0] - width / 2, top[1], width, foot[1] - top[1]);
    }
    for (let bit = 0; bit < 16; bit++) {
      c.fillStyle = (frame >> bit) & 1 ? '#fff' : '#000';
      c.fillRect(bit * 20, 0, 20, 14);
    }
  };
  /** Where in the picture (-1 to 1) a thing is at a time of the film; null behind the seat. For tests. */
  window.madeScene = {
    landmarks: reference.things.landmarks,
    station: (t) => stationAt(wish.from + t),
    across: (l, t) => {
      const eye = pose(stationAt(wish.from + t));
      const to = standing(l);
      const [dx, dy] = [to[0] - eye.at[0], to[1] - eye.at[1]];
      const ahead = dx * Math.cos(eye.heading) + dy * Math.sin(eye.heading);
      const right = dx * Math.sin(eye.heading) - dy * Math.cos(eye.heading);
      return ahead > 0.8 ? (2 * focal * right) / ahead / wide : null;
    },
  };
  const target = new WebMMuxer.ArrayBufferTarget();
  const file = new WebMMuxer.Muxer({
    target,
    video: { codec: 'V_VP8', width: wide, height: high, frameRate: rate },
    firstTimestampBehavior: 'offset',
  });
  let trouble = null;
  const encoder = new VideoEncoder({
    output: (chunk, meta) => file.addVideoChunk(chunk, meta),
    error: (e) => (trouble = e),
  });
  encoder.configure({ codec: 'vp8', width: wide, height: high, bitrate: wish.bits, framerate: rate });
  for (let i = 0; i < wish.seconds * rate; i++) {
    draw(i, stationAt(wish.from + i / rate));
    const frame = new VideoFrame(canvas, { timestamp: Math.round((i * 1e6) / rate) });
    encoder.encode(frame, { keyFrame: i % Math.round(rate / 2) === 0 });
    frame.close();
    while (encoder.encodeQueueSize > 8) await new Promise((r) => setTimeout(r, 5));
    if (trouble) throw trouble;
  }
  await encoder.flush();
  file.finalize();
  const bytes = new Uint8Array(target.buffer);
  let text = '';
  for (let i = 0; i < bytes.length; i += 30000) text += String.fromCharCode(...bytes.subarray(i, i + 30000));
  return btoa(text);
})().then(done, (e) => done(`failed: ${e}`));
