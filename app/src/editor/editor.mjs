// The editor for markup, rules and settings of sections: CodeMirror 6 (MIT) with what is needed of it, as one file without
// anything to load. It stands in a shadow tree: there its styles are constructed stylesheets, which our policy lets through.
import { autocompletion, closeBrackets, closeBracketsKeymap, completionKeymap } from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { css, cssCompletionSource } from "@codemirror/lang-css";
import { html, htmlCompletionSource } from "@codemirror/lang-html";
import { json } from "@codemirror/lang-json";
import { bracketMatching, HighlightStyle, indentOnInput, indentUnit, syntaxHighlighting } from "@codemirror/language";
import { lintGutter, lintKeymap, setDiagnostics } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import { tags as t } from "@lezer/highlight";

const languages = { html: () => html({ autoCloseTags: true }), css, json };
const sources = { html: htmlCompletionSource, css: cssCompletionSource, json: null };

// Words are told apart by weight and by two quiet colours, each above 4.5 to 1 on white.
const look = HighlightStyle.define([
  { tag: [t.comment], color: "#5c6166", fontStyle: "italic" },
  { tag: [t.tagName, t.keyword, t.definitionKeyword, t.className, t.labelName], color: "#1f4f46", fontWeight: "650" },
  { tag: [t.attributeName, t.propertyName], color: "#1f4f46" },
  { tag: [t.string, t.attributeValue, t.url], color: "#7a3e1d" },
  { tag: [t.number, t.unit, t.color, t.bool, t.null], color: "#26446b" },
]);

const dress = EditorView.theme({
  "&": { height: "100%", fontSize: "13px", backgroundColor: "#fff", color: "#1c1e20" },
  "&.cm-focused": { outline: "2px solid #1f4f46", outlineOffset: "-1px" },
  ".cm-scroller": { fontFamily: "var(--code-font, ui-monospace, monospace)", lineHeight: "1.5" },
  ".cm-gutters": { backgroundColor: "#f4f4f3", color: "#5c6166", border: "0" },
  ".cm-activeLine, .cm-activeLineGutter": { backgroundColor: "#f0f3f2" },
  ".cm-tooltip": { border: "1px solid #c9c9c6", backgroundColor: "#fff" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "#1f4f46", color: "#fff" },
});

/**
 * @param own what is offered beside what the language knows: a function of the text before the cursor that gives words, or null
 */
export function edit({ place, text, language, label, own, changed, keep }) {
  const shadow = place.attachShadow({ mode: "open" });
  const offered = (context) => {
    const before = context.state.sliceDoc(Math.max(0, context.pos - 300), context.pos);
    const word = /[\w-]*$/.exec(before)[0];
    const words = own(before, context.state.doc.toString());
    return words && words.length > 0
      ? { from: context.pos - word.length, options: words.map((w) => ({ label: w, boost: 2 })), validFor: /^[\w-]*$/ }
      : null;
  };
  const view = new EditorView({
    root: shadow,
    parent: shadow,
    state: EditorState.create({
      doc: text,
      extensions: [
        lineNumbers(),
        history(),
        drawSelection(),
        indentOnInput(),
        indentUnit.of(language === "json" ? " " : "  "),
        bracketMatching(),
        closeBrackets(),
        highlightActiveLine(),
        lintGutter(),
        languages[language](),
        syntaxHighlighting(look),
        dress,
        EditorView.contentAttributes.of({ "aria-label": label, tabindex: "0" }),
        autocompletion({ override: [offered, ...(sources[language] ? [sources[language]] : [])] }),
        // Tab leaves the editor, as it leaves every field.
        keymap.of([
          { key: "Mod-s", preventDefault: true, run: () => (keep(), true) },
          ...closeBracketsKeymap, ...defaultKeymap, ...historyKeymap, ...completionKeymap, ...lintKeymap,
        ]),
        EditorView.updateListener.of((update) => { if (update.docChanged) changed(update.state.doc.toString()); }),
      ],
    }),
  });
  return {
    focus: () => view.focus(),
    /** Marks one line, or nothing. */
    problem(line, message) {
      const at = view.state.doc.line(Math.max(1, Math.min(view.state.doc.lines, line || 1)));
      view.dispatch(setDiagnostics(view.state, message ? [{ from: at.from, to: at.to, severity: "error", message }] : []));
    },
  };
}
