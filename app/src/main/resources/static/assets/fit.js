// What is cut out of a picture so that it has a shape that may be chosen, and what it lacks. The same as on the server, which decides.
import { say } from "./say.js";
export function cut({ narrowest, widest }, width, height) {
  const shape = width / height;
  if (narrowest != null && shape < narrowest) return [width, Math.max(1, Math.round(width / narrowest))];
  if (widest != null && shape > widest) return [Math.max(1, Math.round(height * widest)), height];
  return [width, height];
}

export function missing(asks, width, height) {
  const [w, h] = cut(asks, width, height);
  if (w >= asks.leastWidth && h >= asks.leastHeight) return "";
  const needs = asks.leastWidth && asks.leastHeight ? say("fit.both", asks.leastWidth, asks.leastHeight)
    : asks.leastWidth ? say("fit.wide", asks.leastWidth) : say("fit.high", asks.leastHeight);
  return w === width && h === height ? say("fit", width, height, needs) : say("fit.cut", width, height, w, h, needs);
}

// Left and top of the cut for a middle, 0 to 1 of the picture.
export function placedCut([w, h], width, height, x, y) {
  const within = (middle, part, whole) => Math.max(0, Math.min(whole - part, middle * whole - part / 2));
  return [within(x, w, width), within(y, h, height)];
}
