/* Runs in the page that a remote tuner opens: lanes over one axis, a crosshair, and which run is shown. */
(() => {
  const data = JSON.parse(document.getElementById('data').textContent);
  const lanes = document.getElementById('lanes');
  const choice = document.getElementById('view');
  const colours = ['#7a5230', '#2f6db5', '#8b3a8f', '#1b2126', '#0b7a75', '#b93a1e'];
  const make = (name, attributes, parent) => {
    const element = document.createElementNS('http://www.w3.org/2000/svg', name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value));
    parent.append(element);
    return element;
  };
  const [left, right, top, height, gap] = [64, 200, 26, 130, 18];
  const told = (value, digits) =>
    value
      .toLocaleString(
        'en-GB',
        digits === undefined
          ? { maximumSignificantDigits: 4 }
          : { minimumFractionDigits: digits, maximumFractionDigits: digits },
      )
      .replace('-', '\u2212');
  /** Round steps: 1, 2 or 5 times a power of ten. */
  const ticks = ([low, high], most) => {
    const rough = (high - low) / most || 1;
    const power = 10 ** Math.floor(Math.log10(rough));
    const step = power * ([1, 2, 5, 10].find((factor) => factor * power >= rough) ?? 10);
    const found = [];
    for (let at = Math.ceil(low / step) * step; at <= high + step / 1e6; at += step)
      found.push(Math.round(at / step) * step || 0);
    return found;
  };
  const rangeOf = (values) => {
    const known = values.filter((value) => value !== null);
    const [low, high] = [Math.min(...known), Math.max(...known)];
    const room = (high - low || Math.abs(high) || 1) * 0.06;
    return [low - room, high + room];
  };

  const bound = (y, halfWidth, sign) =>
    y.map((value, at) => (value === null || halfWidth[at] === null ? null : value + sign * halfWidth[at]));
  /** The uncertainty of a line, in grey. */
  function band(svg, x, y, halfWidth, xOf, yOf) {
    const [high, low] = [bound(y, halfWidth, 1), bound(y, halfWidth, -1)];
    const known = x.map((_, at) => at).filter((at) => high[at] !== null);
    const edge = (places, values) =>
      places.map((at) => `${xOf(x[at]).toFixed(1)} ${yOf(values[at]).toFixed(1)}`).join('L');
    if (known.length > 1)
      make('path', { d: `M${edge(known, high)}L${edge([...known].reverse(), low)}Z`, class: 'band' }, svg);
  }

  function draw(view) {
    lanes.replaceChildren();
    const width = Math.max(320, lanes.clientWidth);
    const inner = width - left - (width > 620 ? right : 12);
    const total = top + view.lanes.length * (height + gap) + 24;
    const svg = make(
      'svg',
      {
        width,
        height: total,
        viewBox: `0 0 ${width} ${total}`,
        tabindex: 0,
        role: 'img',
        'aria-label': `${view.name}: lanes over ${view.axis}. Arrow keys move the crosshair.`,
      },
      lanes,
    );
    const [from, to] = [
      Math.min(...view.lanes.flatMap(({ lines }) => lines.map(({ x }) => x[0]))),
      Math.max(...view.lanes.flatMap(({ lines }) => lines.map(({ x }) => x.at(-1)))),
    ];
    const xOf = (value) => left + ((value - from) / (to - from || 1)) * inner;
    const readings = [];
    view.lanes.forEach(({ title, unit, digits, lines }, row) => {
      const y0 = top + row * (height + gap);
      const range = rangeOf(
        lines.flatMap(({ y, halfWidth }) => (halfWidth ? [...bound(y, halfWidth, 1), ...bound(y, halfWidth, -1)] : y)),
      );
      const yOf = (value) => y0 + height - ((value - range[0]) / (range[1] - range[0])) * height;
      make('text', { x: left, y: y0 - 7, class: 'title' }, svg).textContent = unit ? `${title}, ${unit}` : title;
      for (const tick of ticks(range, 4)) {
        make('line', { x1: left, x2: left + inner, y1: yOf(tick), y2: yOf(tick), class: 'rule' }, svg);
        make('text', { x: left - 8, y: yOf(tick) + 4, class: 'tick', 'text-anchor': 'end' }, svg).textContent =
          told(tick);
      }
      lines.forEach(({ x, y, name, halfWidth }, index) => {
        if (halfWidth) band(svg, x, y, halfWidth, xOf, yOf);
        let path = '';
        let pen = 'M';
        x.forEach((at, place) => {
          if (y[place] === null) pen = 'M';
          else {
            path += `${pen}${xOf(at).toFixed(1)} ${yOf(y[place]).toFixed(1)}`;
            pen = 'L';
          }
        });
        const colour = colours[index % colours.length];
        make('path', { d: path, class: 'line', stroke: colour }, svg);
        const text =
          width > 620
            ? make('text', { x: left + inner + 12, y: y0 + 16 + 17 * index, fill: colour, class: 'reading' }, svg)
            : undefined;
        readings.push({ x, y, name, unit, halfWidth, digits, text });
      });
    });
    for (const tick of ticks([from, to], 8))
      make('text', { x: xOf(tick), y: total - 8, class: 'tick', 'text-anchor': 'middle' }, svg).textContent =
        told(tick);
    make('text', { x: left + inner, y: total - 8, class: 'tick', 'text-anchor': 'end', dy: -14 }, svg).textContent =
      view.axis;
    const hair = make('line', { y1: top, y2: total - 24, class: 'hair' }, svg);
    const spoken = document.getElementById('at');
    let at = (from + to) / 2;
    const place = (value) => {
      at = Math.min(to, Math.max(from, value));
      hair.setAttribute('x1', String(xOf(at)));
      hair.setAttribute('x2', String(xOf(at)));
      const said = readings.map(({ x, y, name, unit, halfWidth, digits, text }) => {
        let index = x.findIndex((one) => one >= at);
        if (index < 0) index = x.length - 1;
        if (index > 0 && at - x[index - 1] < x[index] - at) index -= 1;
        const value = y[index];
        const width = halfWidth?.[index] ?? null;
        const interval = width === null ? '' : ` \u00b1\u00a0${told(width, digits)}`;
        const words = `${name} ${value === null ? 'no value' : `${told(value, digits)}${interval}${unit ? ` ${unit}` : ''}`}`;
        if (text) text.textContent = words;
        return words;
      });
      spoken.textContent = `At ${told(at)} ${view.axis}: ${said.join(' · ')}`;
    };
    svg.addEventListener('pointermove', (event) => {
      const box = svg.getBoundingClientRect();
      place(from + ((event.clientX - box.left - left) / inner) * (to - from));
    });
    svg.addEventListener('keydown', (event) => {
      const step = (to - from) / (event.shiftKey ? 20 : 200);
      const moves = { ArrowLeft: -step, ArrowRight: step };
      if (!(event.key in moves)) return;
      event.preventDefault();
      place(at + moves[event.key]);
    });
    place(at);
  }

  data.views.forEach(({ name }, index) => {
    const option = document.createElement('option');
    option.value = String(index);
    option.textContent = name;
    choice.append(option);
  });
  const shown = () => draw(data.views[Number(choice.value)]);
  choice.addEventListener('change', shown);
  addEventListener('resize', shown);
  shown();
})();
