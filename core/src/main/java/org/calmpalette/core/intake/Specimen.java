package org.calmpalette.core.intake;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.CompoundSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SimpleSelector;
import org.jsoup.nodes.Entities;

/** The page that a lone stylesheet gets, so that its colours can be seen. */
public final class Specimen {
    public static final String FILE = "index.html";
    private static final int MOST_CLASSES = 160;

    private Specimen() {}

    /** A page with headings, text, links, buttons, form parts, a table, a hero, and the sheet's own coloured classes. */
    public static byte[] page(Stylesheet sheet) {
        String file = sheet.source().file();
        StringBuilder classes = new StringBuilder();
        for (List<String> names : coloredClasses(sheet)) {
            String all = Entities.escape(String.join(" ", names));
            String tag = names.stream().anyMatch(n -> n.contains("btn") || n.contains("button")) ? "button" : "div";
            // Each in a box of its own: what is fixed to the window, such as a backdrop, must not cover the others.
            classes.append(
                            "    <div data-specimen style=\"contain: layout paint; min-height: 2em; max-height: 12em; margin: .5em 0\"><")
                    .append(tag)
                    .append(tag.equals("button") ? " type=\"button\"" : "")
                    .append(" class=\"")
                    .append(all)
                    .append("\">")
                    .append(all)
                    .append("</")
                    .append(tag)
                    .append("></div>\n");
        }
        String section = classes.isEmpty()
                ? ""
                : """
          <section id="classes" aria-labelledby="classes-title">
            <h2 id="classes-title">Classes with a colour</h2>
        %s  </section>
        """
                        .formatted(classes);
        return TEMPLATE.formatted(Entities.escape(file), Entities.escape(file), section)
                .getBytes(StandardCharsets.UTF_8);
    }

    /** Classes whose own rule declares a colour, in the order of the sheet; each list makes one element. */
    private static Set<List<String>> coloredClasses(Stylesheet sheet) {
        Set<List<String>> found = new LinkedHashSet<>();
        sheet.eachDeclaration((declaration, around) -> {
            boolean colored = declaration.property().contains("color")
                    || declaration.property().startsWith("background")
                    || declaration.property().startsWith("border")
                    || declaration.isCustom();
            if (colored
                    && found.size() < MOST_CLASSES
                    && around.size() == 1
                    && around.get(0) instanceof Node.StyleRule rule) {
                SelectorList.parse(sheet.tokens(), rule.preludeFirst(), rule.preludeEnd(), null)
                        .ifPresent(list -> list.selectors().stream()
                                .filter(s -> s.compounds().size() == 1 && s.pseudoElement() == null)
                                .map(s -> classes(s.subject()))
                                .filter(names -> !names.isEmpty())
                                .limit(1)
                                .forEach(found::add));
            }
        });
        return found;
    }

    private static List<String> classes(CompoundSelector compound) {
        List<String> names = new ArrayList<>();
        for (SimpleSelector simple : compound.simples()) {
            if (!(simple instanceof SimpleSelector.ClassName c)) {
                return List.of();
            }
            names.add(c.name());
        }
        if (names.size() == 1) {
            // A variant such as btn-primary shows only on top of its base class.
            int hyphen = names.get(0).indexOf('-');
            if (hyphen > 0) {
                names.add(0, names.get(0).substring(0, hyphen));
            }
        }
        return names;
    }

    private static final String TEMPLATE =
            """
      <!DOCTYPE html>
      <html lang="en">
      <head data-specimen>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <title>Specimen of %s</title>
        <link rel="stylesheet" href="%s">
      </head>
      <body>
        <header>
          <nav aria-label="Main">
            <a href="#text" aria-current="page">Text</a> <a href="#forms">Forms</a> <a href="#table">Table</a>
          </nav>
        </header>
        <main>
          <section class="hero" id="hero">
            <h1>A heading of the first level</h1>
            <p>One sentence that stands under the large heading.</p>
            <p><button type="button">A button</button> <a href="#text" role="button">A link as a button</a></p>
          </section>
          <section id="text">
            <h2>A heading of the second level</h2>
            <p>Running text with <a href="#hero">a link</a>, <strong>strong</strong> and <em>stressed</em> words,
              <mark>marked</mark> words, <code>code</code>, <kbd>keys</kbd> and <small>small print</small>.</p>
            <h3>A heading of the third level</h3>
            <blockquote><p>A quotation that somebody said.</p></blockquote>
            <ul><li>An item</li><li>Another item</li></ul>
            <ol><li>First</li><li>Second</li></ol>
            <pre><code>a { color: red }</code></pre>
            <hr>
            <h4>Fourth</h4><h5>Fifth</h5><h6>Sixth</h6>
            <details open><summary>A summary</summary><p>What it opens.</p></details>
          </section>
          <section id="forms">
            <h2>Form parts</h2>
            <form>
              <fieldset>
                <legend>A group</legend>
                <p><label for="name">A text</label> <input id="name" type="text" placeholder="a hint"></p>
                <p><label for="kind">A choice</label> <select id="kind"><option>One</option><option>Two</option></select></p>
                <p><label for="more">Many lines</label> <textarea id="more" rows="3">Text</textarea></p>
                <p><label><input type="checkbox" checked> A tick</label> <label><input type="radio" name="r" checked> One of two</label>
                  <label><input type="radio" name="r"> The other</label></p>
                <p><label for="range">A range</label> <input id="range" type="range"></p>
                <p><label for="part">Progress</label> <progress id="part" value="40" max="100"></progress></p>
                <p><button type="submit">Send</button> <button type="reset">Reset</button>
                  <button type="button" disabled>Not now</button></p>
              </fieldset>
            </form>
          </section>
          <section id="table">
            <h2>A table</h2>
            <table class="table">
              <caption>What the columns say</caption>
              <thead><tr><th scope="col">Head</th><th scope="col">Head</th><th scope="col">Head</th></tr></thead>
              <tbody>
                <tr><th scope="row">Row</th><td>Cell</td><td>Cell</td></tr>
                <tr><th scope="row">Row</th><td>Cell</td><td>Cell</td></tr>
              </tbody>
              <tfoot><tr><th scope="row">Foot</th><td>Cell</td><td>Cell</td></tr></tfoot>
            </table>
          </section>
      %s  </main>
        <footer><p>A footer with <a href="#hero">a link</a>.</p></footer>
      </body>
      </html>
      """;
}
