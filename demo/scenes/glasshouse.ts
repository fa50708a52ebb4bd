import { between, pick, type Random, repeat } from '../random';

/** A great glasshouse over its garden, wide enough for three panels. Two units a cell on 840 × 500. */
export function theGlasshouse(random: Random): string {
  const b = (low: number, high: number) => between(random, low, high).toFixed(1);
  const clouds = repeat(
    46,
    () =>
      `<ellipse cx="${b(-40, 1720)}" cy="${b(20, 300)}" rx="${b(50, 170)}" ry="${b(14, 42)}" fill="${pick(random, ['#ffffff', '#fdeee0', '#f6dcd2', '#e3ecf6'])}" opacity="${b(0.25, 0.7)}"/>`,
  );
  const trees = repeat(90, (i) => {
    const x = i % 2 ? between(random, -60, 330) : between(random, 1350, 1740);
    const edge = Math.abs(x - 840) / 840;
    const y = 660 - edge * edge * 170 + between(random, -50, 50);
    return `<ellipse cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" rx="${b(36, 84)}" ry="${b(40, 92)}" fill="${pick(random, ['#2f5d46', '#3f7550', '#24503f', '#55885a', '#6f9a5c', '#1d4338'])}"/>`;
  });
  /** Plants behind the glass, kept to the outline of the house by its clip. */
  const inside = repeat(170, () => {
    const x = between(random, 180, 1500);
    const y = 660 - random() ** 1.6 * 330;
    const fill = pick(random, ['#2f7a4b', '#3f9657', '#1f5c3e', '#69b163', '#8cc66a', '#1a4a36', '#4aa06e']);
    return `<ellipse cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" rx="${b(14, 52)}" ry="${b(8, 26)}" fill="${fill}" opacity="0.85" transform="rotate(${b(-50, 50)} ${x.toFixed(1)} ${y.toFixed(1)})"/>`;
  });
  const palm = (x: number, base: number, tall: number) => {
    const top = base - tall;
    const fronds = repeat(13, (i) => {
      const angle = (-200 + i * 18.5) * (Math.PI / 180);
      const reach = tall * between(random, 0.36, 0.52);
      const ex = x + Math.cos(angle) * reach;
      const ey = top + Math.sin(angle) * reach * 0.75 + reach * 0.28;
      return `<path d="M${x} ${top} Q${(x + ex) / 2} ${Math.min(top, ey) - reach * 0.2} ${ex.toFixed(1)} ${ey.toFixed(1)} Q${(x + ex) / 2} ${(top + ey) / 2 - 4} ${x} ${top + 6}Z" fill="${pick(random, ['#2a8a4c', '#4fae58', '#1c6a41', '#86c95f'])}"/>`;
    });
    return `<path d="M${x - 8} ${base} Q${x - 2} ${base - tall / 2} ${x - 4} ${top} L${x + 5} ${top} Q${x + 8} ${base - tall / 2} ${x + 10} ${base}Z" fill="#7a5a3e"/>${fronds}`;
  };
  const ribs = (x: number, wide: number, top: number, base: number, count: number) =>
    repeat(count + 1, (i) => {
      const at = x + (wide * i) / count;
      const middle = x + wide / 2;
      return `<path d="M${at.toFixed(1)} ${base} V${top + 120} Q${at.toFixed(1)} ${top + 30} ${(middle + (at - middle) * 0.16).toFixed(1)} ${top}" stroke="#f4f1e6" stroke-width="5" fill="none"/>`;
    });
  const hoops = (x: number, wide: number, ys: number[]) =>
    ys.map((y) => `<path d="M${x} ${y} H${x + wide}" stroke="#e9e4d4" stroke-width="4.4"/>`).join('');
  const glints = repeat(60, () => {
    const x = between(random, 200, 1470);
    const y = between(random, 250, 620);
    return `<path d="M${x} ${y} l${b(14, 40)} ${b(-60, -24)} h12 l-26 50Z" fill="#ffffff" opacity="${b(0.12, 0.4)}"/>`;
  });
  const bed = (left: boolean) =>
    repeat(820, () => {
      const depth = random();
      const y = 740 + depth * 262;
      const reach = 640 - depth * 120;
      const x = left ? between(random, -20, reach) : between(random, 1680 - reach, 1700);
      const band = Math.floor((y - 740) / 52 + Math.sin(x / 150) * 0.9);
      const rows = [
        ['#d8436a', '#f06d8c', '#b32653', '#ffb1c4'],
        ['#f6c443', '#ffe08a', '#e29a2a', '#fff1c2'],
        ['#8a58b8', '#b48be0', '#5e3a94', '#e0c8f6'],
        ['#f2f0ea', '#ffffff', '#d9e6d0', '#f7d9e0'],
        ['#e8622e', '#ff935a', '#bf3f1d', '#ffc39a'],
        ['#4f78c9', '#86a8ea', '#33549c', '#c8d8f8'],
      ];
      const flowers = rows[((band % rows.length) + rows.length) % rows.length]!;
      const fill =
        random() < 0.3 ? pick(random, ['#3f7d42', '#2b5f37', '#6ba352', '#1d4a2f']) : pick(random, flowers);
      return `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${(3.2 + depth * 6.5).toFixed(1)}" fill="${fill}"/>`;
    });
  const gravel = repeat(200, () => {
    const depth = random();
    const half = 66 + depth * 150;
    return `<circle cx="${(840 + between(random, -half, half)).toFixed(1)}" cy="${(700 + depth * 300).toFixed(1)}" r="${b(1.6, 4.5)}" fill="${pick(random, ['#e8d6b4', '#c9b189', '#f5e8cd', '#b59a72'])}"/>`;
  });
  const shape =
    'M180 690 V470 Q180 400 300 372 L520 372 V330 Q560 150 840 110 Q1120 150 1160 330 V372 L1380 372 Q1500 400 1500 470 V690Z';
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1680 1000">
<defs>
<linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#6f9fd0"/><stop offset="0.45" stop-color="#b4cfe4"/><stop offset="0.8" stop-color="#f3dcc6"/><stop offset="1" stop-color="#f7c9a8"/></linearGradient>
<linearGradient id="glass" x1="0" y1="0" x2="0.5" y2="1"><stop offset="0" stop-color="#dff2f4"/><stop offset="0.5" stop-color="#a9d6d6"/><stop offset="1" stop-color="#5fa28c"/></linearGradient>
<linearGradient id="lawn" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#86b35a"/><stop offset="1" stop-color="#3c7a41"/></linearGradient>
<linearGradient id="path" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#f2e3c4"/><stop offset="1" stop-color="#cdb58b"/></linearGradient>
<filter id="soft"><feGaussianBlur stdDeviation="12"/></filter><filter id="softer"><feGaussianBlur stdDeviation="3"/></filter>
<clipPath id="house"><path d="${shape}"/></clipPath>
</defs>
<rect width="1680" height="740" fill="url(#sky)"/>
<g filter="url(#soft)">${clouds}</g>
<path d="M0 560 Q200 500 420 590 T840 600 T1300 580 T1680 540 V720 H0Z" fill="#7fa277"/><path d="M0 640 Q300 600 840 640 T1680 630 V720 H0Z" fill="#3c6d4a"/>
<g filter="url(#softer)">${trees}</g>
<path d="${shape}" fill="url(#glass)"/>
<g clip-path="url(#house)"><g filter="url(#softer)">${inside}</g>${palm(840, 690, 420)}${palm(690, 690, 280)}${palm(1000, 690, 300)}${palm(350, 690, 210)}${palm(1330, 690, 220)}${palm(1190, 690, 170)}${palm(500, 690, 180)}
${glints}</g>
<g clip-path="url(#house)">${ribs(520, 640, 112, 690, 12)}${ribs(180, 340, 372, 690, 7)}${ribs(1160, 340, 372, 690, 7)}
${hoops(520, 640, [330, 420, 510, 600])}${hoops(180, 340, [490, 600])}${hoops(1160, 340, [490, 600])}</g>
<path d="${shape}" fill="none" stroke="#fffaf0" stroke-width="11"/>
<path d="M806 108 h68 l-10 -34 h-48Z" fill="#fffaf0"/><path d="M840 74 V34" stroke="#d9b45c" stroke-width="8"/><circle cx="840" cy="32" r="11" fill="#e6c46c"/>
<rect x="170" y="676" width="1340" height="34" fill="#b9967a"/><path d="M170 688h1340" stroke="#8d6c55" stroke-width="6" stroke-dasharray="34 5"/>
<path d="M770 706 V560 Q770 500 840 496 Q910 500 910 560 V706Z" fill="#2c6350"/><path d="M770 706 V560 Q770 500 840 496 Q910 500 910 560 V706 M840 496 V706 M770 600 H910" stroke="#fffaf0" stroke-width="8" fill="none"/>
<rect y="708" width="1680" height="292" fill="url(#lawn)"/>
<path d="M774 708 H906 L1080 1000 H600Z" fill="url(#path)"/>${gravel}
${bed(true)}${bed(false)}
<path d="M766 708 L584 1000 M914 708 L1096 1000" stroke="#2e5e34" stroke-width="16"/>
${repeat(26, (i) => {
  const side = i % 2 === 0 ? -1 : 1;
  const depth = Math.floor(i / 2) / 13;
  const x = 840 + side * (84 + depth * 190);
  const y = 724 + depth * 270;
  return `<ellipse cx="${x}" cy="${y}" rx="${9 + depth * 17}" ry="${11 + depth * 19}" fill="${pick(random, ['#2f6b3c', '#3f8047', '#1f5230'])}"/><circle cx="${x - 4}" cy="${y - 6}" r="${4 + depth * 7}" fill="#7db35e" opacity="0.7"/>`;
})}
</svg>`;
}
