// Colours of sRGB as fields need them: read from what is written, to and from hsl() (CSS Color 4, section 7), written as hex.
const hex2 = (n) => Math.round(Math.max(0, Math.min(1, n)) * 255).toString(16).padStart(2, "0");

export const hex = (r, g, b, alpha = 1) => `#${hex2(r)}${hex2(g)}${hex2(b)}${alpha < 1 ? hex2(alpha) : ""}`;

// "#rrggbb" with an alpha from 0 to 1; wholly opaque has none.
export const withAlpha = (color, alpha) => color.slice(0, 7) + (Math.round(alpha * 255) < 255 ? hex2(alpha) : "");

// Of "#rgb", "#rgba", "#rrggbb" or "#rrggbbaa"; null for anything else.
export function fromHex(text) {
  const digits = /^#([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.exec(text.trim())?.[1];
  if (!digits) return null;
  const size = digits.length < 6 ? 1 : 2;
  const parts = digits.match(size === 1 ? /./g : /../g).map((d) => parseInt(d.repeat(3 - size), 16) / 255);
  return { r: parts[0], g: parts[1], b: parts[2], alpha: parts[3] ?? 1 };
}

let context = null;
// Of any colour that CSS knows, as the browser paints it; null for what is none.
export function written(text) {
  const plain = fromHex(text);
  if (plain || typeof document === "undefined") return plain;
  if (!text.trim() || !CSS.supports("color", text) || /^(inherit|initial|unset|revert|revert-layer|currentcolor)$/i.test(text.trim())) return null;
  context ??= Object.assign(document.createElement("canvas"), { width: 1, height: 1 }).getContext("2d", { willReadFrequently: true });
  context.clearRect(0, 0, 1, 1);
  context.fillStyle = text;
  context.fillRect(0, 0, 1, 1);
  const [r, g, b, a] = context.getImageData(0, 0, 1, 1).data;
  return { r: r / 255, g: g / 255, b: b / 255, alpha: a / 255 };
}

// Hue in degrees, saturation and lightness in percent; grey has hue 0.
export function toHsl({ r, g, b }) {
  const max = Math.max(r, g, b);
  const min = Math.min(r, g, b);
  const d = max - min;
  const lightness = (max + min) / 2;
  if (d < 1e-9) return [0, 0, lightness * 100];
  const hue = max === r ? ((g - b) / d + 6) % 6 : max === g ? (b - r) / d + 2 : (r - g) / d + 4;
  return [hue * 60, (d / (1 - Math.abs(2 * lightness - 1))) * 100, lightness * 100];
}

export function fromHsl(hue, saturation, lightness) {
  const l = lightness / 100;
  const a = (saturation / 100) * Math.min(l, 1 - l);
  const channel = (n) => {
    const k = (n + hue / 30) % 12;
    return l - a * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return hex(channel(0), channel(8), channel(4));
}
