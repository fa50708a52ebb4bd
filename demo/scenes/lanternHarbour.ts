import { between, pick, type Random, repeat } from '../random';

/** A harbour at night, hung with lanterns whose light breaks up on the water. Five units a cell on 160 × 200. */
export function lanternHarbour(random: Random): string {
  const b = (low: number, high: number) => between(random, low, high).toFixed(1);
  const stars = repeat(
    70,
    () =>
      `<circle cx="${b(0, 800)}" cy="${b(0, 330)}" r="${b(1.6, 4)}" fill="${pick(random, ['#fff6d8', '#bcd2ff', '#8fa9e6'])}"/>`,
  );
  const houses = repeat(17, (i) => {
    const x = i * 50 - 20 + between(random, -8, 8);
    const wide = between(random, 44, 64);
    const top = 430 - Math.sin((i / 16) * Math.PI) * 120 + between(random, -24, 24);
    const wall = pick(random, ['#3b3563', '#4a3c66', '#2f2f58', '#54406a', '#3d4570']);
    const roof = pick(random, ['#7a3b4b', '#5b2f4a', '#8c4a48', '#4a2a49']);
    const windows = repeat(6, (w) =>
      random() < 0.72
        ? `<rect x="${(x + 8 + (w % 2) * (wide / 2 - 2)).toFixed(1)}" y="${(top + 16 + Math.floor(w / 2) * 34).toFixed(1)}" width="12" height="17" fill="${pick(random, ['#ffd77a', '#ffb84d', '#ffe9b0', '#f2913d'])}"/>`
        : '',
    );
    return `<path d="M${x - 5} ${top} l${wide / 2 + 5} -34 l${wide / 2 + 5} 34Z" fill="${roof}"/><rect x="${x}" y="${top}" width="${wide}" height="${570 - top}" fill="${wall}"/>${windows}`;
  });
  const boat = (
    x: number,
    y: number,
    s: number,
    hull: string,
    sail: string,
  ) => `<g transform="translate(${x} ${y}) scale(${s})">
<path d="M-6 -190 L-6 -20" stroke="#2a1c22" stroke-width="8"/><path d="M0 -186 C70 -150 84 -90 80 -40 L0 -34Z" fill="${sail}"/><path d="M0 -150 C44 -120 56 -90 54 -62" stroke="#b98f6a" stroke-width="4" fill="none" opacity="0.6"/><path d="M-14 -176 C-60 -130 -74 -80 -76 -40 L-14 -34Z" fill="${sail}" opacity="0.85"/>
<path d="M-110 -24 L112 -24 C104 14 70 30 0 30 C-70 30 -100 12 -110 -24Z" fill="${hull}"/><path d="M-110 -24 L112 -24 L110 -12 L-108 -12Z" fill="#f0d9a8"/><circle cx="-60" cy="-42" r="13" fill="#ffce63"/><circle cx="-60" cy="-42" r="6" fill="#fff4c8"/></g>`;
  const lantern = (
    x: number,
    y: number,
    s: number,
    body: string,
    glow: string,
  ) => `<g transform="translate(${x} ${y}) scale(${s})">
<circle r="92" fill="${glow}" opacity="0.33" filter="url(#glow)"/><path d="M0 -120 V-62" stroke="#1c1420" stroke-width="5"/><rect x="-22" y="-66" width="44" height="12" fill="#c79a3f"/>
<ellipse rx="52" ry="58" fill="${body}"/><ellipse rx="24" ry="57" fill="${glow}" opacity="0.75"/><path d="M-52 0 H52 M-46 -26 H46 M-46 26 H46" stroke="#7c2a1e" stroke-width="4" opacity="0.5"/>
<rect x="-22" y="54" width="44" height="12" fill="#c79a3f"/><path d="M-12 66 v30 M0 66 v40 M12 66 v30" stroke="#d9a441" stroke-width="5"/></g>`;
  const lit: [number, number, string][] = [
    [110, 0.7, '#ff9a3c'],
    [265, 0.8, '#ffc24d'],
    [420, 0.9, '#ff6f4a'],
    [590, 0.8, '#ffd36b'],
    [720, 0.7, '#ff8a5c'],
  ];
  const ripples = repeat(420, () => {
    const y = 596 + random() ** 1.2 * 400;
    const fill = pick(random, ['#1a2b5c', '#223a73', '#16224a', '#2f4f8c', '#0f1838', '#3a63a3']);
    return `<ellipse cx="${b(0, 800)}" cy="${y.toFixed(1)}" rx="${b(12, 46)}" ry="${b(2, 4.5)}" fill="${fill}" opacity="0.8"/>`;
  });
  const reflections = lit
    .map(([x, strength, colour]) =>
      repeat(76, () => {
        const depth = random();
        const spread = 16 + depth * 62;
        return `<ellipse cx="${(x + between(random, -spread, spread)).toFixed(1)}" cy="${(604 + depth * 380).toFixed(1)}" rx="${b(5, 20)}" ry="${b(2.4, 5.4)}" fill="${pick(random, [colour, '#ffe3a0', '#ff7d4f', '#e85a6a', '#fff3cf'])}" opacity="${(strength * between(random, 0.55, 1)).toFixed(2)}"/>`;
      }),
    )
    .join('');
  const moonPath = repeat(44, () => {
    const depth = random();
    return `<ellipse cx="${(640 + between(random, -20 - depth * 40, 20 + depth * 40)).toFixed(1)}" cy="${(600 + depth * 300).toFixed(1)}" rx="${b(6, 18)}" ry="3" fill="${pick(random, ['#dfe9ff', '#a9c1f2', '#f4f6ff'])}" opacity="0.7"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 1000">
<defs>
<linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#0d1233"/><stop offset="0.5" stop-color="#27306b"/><stop offset="0.85" stop-color="#6a4a86"/><stop offset="1" stop-color="#b8657f"/></linearGradient>
<linearGradient id="sea" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#3a3f7c"/><stop offset="0.25" stop-color="#20316b"/><stop offset="1" stop-color="#0b1230"/></linearGradient>
<radialGradient id="moon"><stop offset="0.55" stop-color="#fff8e0"/><stop offset="1" stop-color="#ead9a6"/></radialGradient>
<filter id="glow" x="-1" y="-1" width="3" height="3"><feGaussianBlur stdDeviation="22"/></filter>
<filter id="haze"><feGaussianBlur stdDeviation="9"/></filter>
</defs>
<rect width="800" height="600" fill="url(#sky)"/>
${stars}
<circle cx="640" cy="180" r="110" fill="#cfd8ff" opacity="0.25" filter="url(#glow)"/><circle cx="640" cy="180" r="62" fill="url(#moon)"/><circle cx="622" cy="168" r="11" fill="#e0cf9a"/><circle cx="660" cy="200" r="15" fill="#e3d3a2"/>
<g filter="url(#haze)"><path d="M0 300 q120 -26 260 4 t280 -8 t260 10 v26 q-140 -20 -280 0 t-300 0 t-220 4Z" fill="#7d6aa8" opacity="0.55"/></g>
<path d="M0 470 C120 330 260 300 400 320 C560 300 700 350 800 450 V600 H0Z" fill="#241f46"/>
${houses}
<rect y="556" width="800" height="44" fill="#4b4560"/><path d="M0 562h800M0 582h800" stroke="#2b2640" stroke-width="5"/>
<rect y="596" width="800" height="404" fill="url(#sea)"/>
${ripples}${moonPath}${reflections}
${boat(560, 700, 1.05, '#7a2f3a', '#e9cfa4')}
${boat(210, 760, 1.35, '#24566e', '#f2e2c0')}
<path d="M-20 60 C180 250 330 220 420 250 S690 200 830 40" stroke="#191320" stroke-width="7" fill="none"/>
${lantern(110, 262, 0.95, '#e2622c', '#ffc26b')}${lantern(265, 336, 1.05, '#f0a02c', '#ffe39a')}${lantern(420, 366, 1.2, '#cf3b32', '#ff9d6a')}${lantern(590, 346, 0.95, '#f3b63e', '#fff0b4')}${lantern(722, 250, 0.85, '#d9522f', '#ffb978')}
<path d="M0 930 H300 L330 1000 H0Z" fill="#2a1f2b"/><path d="M0 938H300M0 962H310M0 986H320" stroke="#57424a" stroke-width="6"/><rect x="236" y="880" width="22" height="120" fill="#3c2b30"/><rect x="60" y="870" width="26" height="130" fill="#3c2b30"/><rect x="60" y="866" width="26" height="8" fill="#8a6a58"/><rect x="236" y="876" width="22" height="8" fill="#8a6a58"/>
</svg>`;
}
