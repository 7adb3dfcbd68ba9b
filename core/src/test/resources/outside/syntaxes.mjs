// Writes syntaxes.txt: which values the syntaxes of mdn-data let each property take, as css-tree matches them. One line each:
// property, then the numbers of the values that match, of the list in the first lines. Run in a folder with css-tree 3.2.1 (with
// its mdn-data 2.27.1) from npm: node syntaxes.mjs > syntaxes.txt
import { createRequire } from "node:module";

const { lexer, parse } = createRequire(process.cwd() + "/")("css-tree");
const sides = ["top", "right", "bottom", "left"];
const properties = [
  "color", "opacity", "visibility", "display", "position", "float", "direction", "color-scheme", "fill", "stroke", "font-size",
  "font-weight", "font-family", "font-style", "line-height", "font", "background-color", "background-image", "background-position-x",
  "background-position-y", "background-position", "background-size", "background-repeat", "background-attachment", "background-origin",
  "background-clip", "background", "padding", "margin", "inset", "border", "border-color", "border-style", "border-width",
  "outline", "outline-color", "outline-style", "outline-width",
  ...sides.flatMap((s) => [`border-${s}`, `border-${s}-color`, `border-${s}-style`, `border-${s}-width`, `padding-${s}`, `margin-${s}`]),
];
const words = `auto none normal inherit initial revert-layer inherti visible hidden collapse block inline flex inline-block grid
  table-cell list-item contents flow-root ruby static relative absolute fixed sticky stick left right top bottom center start end
  ltr rtl light dark small medium large larger xx-large bold bolder lighter boldest italic oblique serif monospace Georgia
  cover contain repeat repeat-x repeat-y no-repeat space round scroll local border-box padding-box content-box text
  solid dashed double groove thin thick red RED rebeccapurple transparent currentcolor CanvasText salmonpink`.split(/\s+/);
const single = `0 1 1.5 -1 400 1000 1001 0px 12px -12px 1.5em 2rem 10vw 3dvh 50% -10% 120% calc(1px_+_2px) calc(10px_+_2%) calc(10px_-_20px)
  min(10px,5%) clamp(1rem,2vw,3rem) 12q 90deg 1s #abc #abcd #abcde #aabbccdd rgb(1,2,3) rgb(1,2%,3) rgb(1_2_3_/_50%) rgba(1,2,3,.5)
  hsl(120_50%_50%) hsl(120deg,50%,50%) hwb(1_2%_3%) lab(50%_1_2) oklch(.5_.1_120) oklch(50%_0.1_120_/_.5) color(display-p3_1_0_0)
  color-mix(in_srgb,red,blue_20%) url(a.png) url("a.png") linear-gradient(red,blue) linear-gradient(to_top,red_10%,blue)
  linear-gradient(red) radial-gradient(circle_at_center,red,blue) conic-gradient(red,blue) repeating-linear-gradient(45deg,red,blue_20px)
  image-set("a.png"_1x) "Georgia" 12xp 1e3px +5px .5 5. U+26`.split(/\s+/).map((v) => v.replaceAll("_", " "));
const several = `1px 2px | 1px 2px 3px | 1px 2px 3px 4px | 1px 2px 3px 4px 5px | auto 10px | 50% auto | auto auto auto | left top | top left |
  left left | right 10px top 20% | right 10px | top 10px left | center 10px bottom | left 10px top 20px right | cover contain |
  repeat no-repeat | repeat-x repeat | space round | red blue | red blue green | solid dashed | 1px solid | 1px solid red | red 1px solid |
  solid 1px 2px | red blue solid | scroll, fixed | red, blue | url(a.png), url(b.png) | none, url(a.png) | url(a.png) no-repeat |
  url(a.png) center / cover no-repeat | red url(a.png) left 10px top 5px / 50% auto repeat-x fixed | url(a.png), red | red, url(a.png) |
  url(a.png) cover | / cover url(a.png) | content-box padding-box red | border-box content-box padding-box | Georgia, serif |
  "My Font", Georgia | Georgia,, serif | 12px Georgia | italic bold 12px/1.5 Georgia, serif | bold italic | 12px | 12px/1.5 |
  12px / normal serif | 700 1rem/1 "My Font" | block flow | inline flow-root | flow block | block block | block flex | flex inline |
  light dark | dark light only | only light | oblique 10deg | italic 10deg | 1px, 2px | center, left 10px | 10px 20px, cover |
  auto 3px red | red auto | auto auto | hidden 1px | solid auto | red / 50% | 10px / 20px | 1px solid red blue | thin thick | bolder 400`.split(/\s*\|\s*/).map((v) => v.trim());
const values = [...new Set([...words, ...single, ...several].filter(Boolean))];

function valid(property, value) {
  try {
    const match = lexer.matchProperty(property, parse(value, { context: "value" }));
    if (match.error && match.error.name !== "SyntaxMatchError") throw match.error;
    return match.matched !== null;
  } catch (e) {
    if (e.name === "SyntaxError") return false;
    throw e;
  }
}
console.log("# mdn-data 2.27.1 (CC0) as css-tree 3.2.1 (MIT) matches it: values, then each property with the numbers of those that are valid.");
values.forEach((v, i) => console.log(`= ${i} ${v}`));
for (const p of properties) console.log([p, ...values.flatMap((v, i) => (valid(p, v) ? [i] : []))].join(" "));
