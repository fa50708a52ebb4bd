import { between, pick, type Random, repeat } from '../random';

/** A kingfisher on the beam of a sluice, water falling beside the gate. Five units a cell on 120 × 160. */
export function kingfisherAtTheSluice(random: Random): string {
  const b = (low: number, high: number) => between(random, low, high).toFixed(1);
  const bokeh = repeat(70, () => {
    const y = between(random, 0, 560);
    const fill = pick(
      random,
      y < 240 ? ['#e9efb0', '#c9dd86', '#f6f3c8', '#a9c66c'] : ['#5f8f4e', '#7fae5a', '#3f7350', '#a3c26a'],
    );
    return `<circle cx="${b(0, 600)}" cy="${y.toFixed(1)}" r="${b(14, 58)}" fill="${fill}" opacity="${b(0.18, 0.5)}"/>`;
  });
  const reeds = repeat(26, () => {
    const x = between(random, -10, 150);
    const top = between(random, 150, 420);
    const lean = between(random, -30, 60);
    const fill = pick(random, ['#2e5a3c', '#3f7a45', '#5d9448', '#1f4635']);
    return `<path d="M${x} 640 C${x} 520 ${x + lean / 2} ${top + 120} ${x + lean} ${top} C${x + lean / 2 + 9} ${top + 130} ${x + 11} 520 ${x + 12} 640Z" fill="${fill}"/>`;
  });
  const planks = repeat(7, (i) => {
    const x = 20 + i * 56;
    const fill = pick(random, ['#6b4a33', '#5a3d2b', '#7a5638', '#4d3526']);
    const grain = repeat(7, () => {
      const gx = x + between(random, 4, 48);
      return `<path d="M${gx} 640 q${b(-3, 3)} 70 ${b(-2, 2)} 150" stroke="${pick(random, ['#3a2619', '#8b6644', '#a07a52'])}" stroke-width="${b(1.5, 4)}" fill="none" opacity="0.7"/>`;
    });
    return `<rect x="${x}" y="632" width="53" height="150" fill="${fill}"/>${grain}`;
  });
  const fall = repeat(80, () => {
    const x = between(random, 420, 590);
    const stroke = pick(random, ['#ffffff', '#e3f4f5', '#a8d6de', '#6fb3c4', '#3f8aa3', '#c9e9ec']);
    return `<path d="M${x} 636 q${b(-6, 8)} 60 ${b(-4, 10)} ${b(90, 150)}" stroke="${stroke}" stroke-width="${b(2, 7)}" fill="none" opacity="${b(0.5, 0.95)}"/>`;
  });
  const foam = repeat(120, () => {
    const x = between(random, 0, 600);
    const near = x > 380 ? 1 : 0.45;
    const fill = pick(random, ['#ffffff', '#d6eef0', '#8fc9d3', '#4d97ab', '#2a6c83']);
    return `<ellipse cx="${x}" cy="${b(752, 800)}" rx="${b(4, 16)}" ry="${b(2, 6)}" fill="${fill}" opacity="${(near * between(random, 0.4, 0.95)).toFixed(2)}"/>`;
  });
  const wingSpots = repeat(34, () => {
    const t = random();
    return `<circle cx="${(226 + t * 70 + between(random, -18, 26)).toFixed(1)}" cy="${(320 + t * 190 + between(random, -22, 22)).toFixed(1)}" r="${b(3, 6)}" fill="${pick(random, ['#8fe6ea', '#c6fbf4', '#49c3d8'])}"/>`;
  });
  const capSpots = repeat(36, () => {
    const angle = between(random, Math.PI * 1.02, Math.PI * 1.86);
    const r = between(random, 48, 80);
    return `<circle cx="${(330 + Math.cos(angle) * r).toFixed(1)}" cy="${(238 + Math.sin(angle) * r).toFixed(1)}" r="${b(2.6, 5)}" fill="${pick(random, ['#7fe3ea', '#b9f6f2', '#3fb2d2'])}"/>`;
  });
  const belly = repeat(60, () => {
    const y = between(random, 330, 560);
    return `<path d="M${b(330, 402)} ${y} q4 9 0 18" stroke="${pick(random, ['#ffb45c', '#d9691f', '#b9501a', '#ffd08a'])}" stroke-width="4" fill="none" opacity="0.65"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 800">
<defs>
<linearGradient id="air" x1="0" y1="0" x2="0.4" y2="1"><stop offset="0" stop-color="#f3f0c4"/><stop offset="0.35" stop-color="#b7cf80"/><stop offset="0.7" stop-color="#5c8d55"/><stop offset="1" stop-color="#24503f"/></linearGradient>
<linearGradient id="breast" x1="0" y1="0" x2="0.3" y2="1"><stop offset="0" stop-color="#ffb861"/><stop offset="0.5" stop-color="#ee8432"/><stop offset="1" stop-color="#b24c16"/></linearGradient>
<linearGradient id="wing" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#21b7cf"/><stop offset="0.45" stop-color="#137fb0"/><stop offset="1" stop-color="#123f78"/></linearGradient>
<linearGradient id="rump" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#5ff0ee"/><stop offset="1" stop-color="#1aa3cf"/></linearGradient>
<linearGradient id="bill" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#2d2f38"/><stop offset="1" stop-color="#0f1014"/></linearGradient>
<linearGradient id="pool" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#2f7c90"/><stop offset="1" stop-color="#123c4d"/></linearGradient>
<linearGradient id="beam" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#b98d5d"/><stop offset="0.35" stop-color="#8a623f"/><stop offset="1" stop-color="#4a3222"/></linearGradient>
<filter id="soft"><feGaussianBlur stdDeviation="7"/></filter>
</defs>
<rect width="600" height="800" fill="url(#air)"/>
<g filter="url(#soft)">${bokeh}<path d="M600 120 C520 200 520 420 600 560Z" fill="#2c5b43" opacity="0.8"/></g>
${reeds}
<rect x="410" y="620" width="190" height="180" fill="#5aa5b8"/>
${planks}
<rect x="398" y="600" width="24" height="200" fill="#3d2a1d"/><rect x="404" y="600" width="7" height="200" fill="#7d5a3c"/>
${fall}
<rect x="0" y="744" width="600" height="60" fill="url(#pool)"/>
${foam}
<rect x="0" y="588" width="600" height="48" fill="url(#beam)"/>
<path d="M0 602h600M0 617h600" stroke="#5e4029" stroke-width="3" opacity="0.7"/>
<rect x="0" y="586" width="600" height="7" fill="#d6b27c"/>
<path d="M236 520 L196 682 L222 690 L246 678 L292 560Z" fill="url(#wing)"/>
<path d="M240 540 L214 680" stroke="#0e2f5c" stroke-width="6"/>
<path d="M300 250 C250 330 236 450 268 530 C290 590 356 592 390 540 C430 470 440 350 396 270Z" fill="url(#breast)"/>
${belly}
<path d="M276 226 C196 292 176 430 226 560 L252 606 C296 556 338 470 338 380 C338 318 318 258 276 226Z" fill="url(#wing)"/>
<path d="M262 250 C222 320 214 430 238 540 C262 470 284 380 286 300Z" fill="url(#rump)" opacity="0.9"/>
<path d="M320 330 C330 420 300 500 256 580" stroke="#0d2c57" stroke-width="7" fill="none"/>
<path d="M298 330 C304 420 282 500 246 560" stroke="#0d2c57" stroke-width="4" fill="none" opacity="0.7"/>
${wingSpots}
<circle cx="330" cy="238" r="84" fill="#1683b4"/>
<path d="M250 214 A84 84 0 0 1 412 214 C380 190 300 186 250 214Z" fill="#146196"/>
${capSpots}
<path d="M402 226 L560 262 L404 268 C394 256 394 238 402 226Z" fill="url(#bill)"/>
<path d="M404 256 L556 263 L404 270Z" fill="#6b3a22"/>
<path d="M318 236 C350 220 392 226 406 244 C400 270 350 284 308 268Z" fill="#f08a35"/>
<path d="M262 250 C282 236 308 246 314 262 C306 288 280 300 258 284Z" fill="#fdf6e6"/>
<path d="M322 284 C352 296 390 286 410 268 C416 304 380 330 336 322Z" fill="#fffaf0"/>
<path d="M366 232 L412 238" stroke="#1b1d24" stroke-width="9"/>
<circle cx="362" cy="228" r="17" fill="#14110f"/><circle cx="368" cy="222" r="6" fill="#ffffff"/>
<path d="M318 574 l-8 22 M334 576 l2 22 M352 572 l10 22" stroke="#d9512a" stroke-width="10" stroke-linecap="round"/>
</svg>`;
}
