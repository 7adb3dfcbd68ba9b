package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SyntaxFault;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;

/** What is fixed in a theme, and what is wrong with it. */
public record Survey(
    List<SheetSummary> stylesheets, ColorSurvey.Result colors, List<PictureUse> pictures, List<Finding> findings) {

  /**
   * A stylesheet in numbers.
   *
   * @param rules rules with a selector, nested ones and keyframes too
   */
  public record SheetSummary(String file, int bytes, int rules, int declarations) {}

  public static Survey of(Theme theme) {
    List<SheetSummary> summaries = new ArrayList<>();
    List<Finding> findings = new ArrayList<>();
    for (SheetPart part : theme.sheets()) {
      int[] counts = new int[2];
      count(part.sheet().rules(), counts);
      int bytes = part.offset() == 0 ? part.file().size() : part.sheet().source().size();
      summaries.add(new SheetSummary(part.path(), bytes, counts[0], counts[1]));
      findings.addAll(reading(part));
    }
    findings.addAll(SheetFindings.of(theme));
    List<PictureUse> pictures = Pictures.of(theme);
    for (PictureUse p : pictures) {
      if (!p.exists() && !p.path().isEmpty()) {
        findings.add(new Finding("missing-picture", p.file(), p.line(), 0,
            "The picture “" + p.url() + "” is not in the theme, so nothing is shown there.",
            "Add " + p.path() + " to the theme, or correct the address."));
      } else if (p.path().isEmpty()) {
        findings.add(new Finding("picture-elsewhere", p.file(), p.line(), 0,
            "The picture “" + p.url() + "” lies on another host or outside the theme; it is not shown in previews.",
            "Put the picture into the theme and name it from there."));
      }
    }
    return new Survey(List.copyOf(summaries), ColorSurvey.of(theme), pictures, List.copyOf(findings));
  }

  private static void count(List<Node> nodes, int[] counts) {
    for (Node node : nodes) {
      if (node instanceof Node.Declaration) {
        counts[1]++;
      } else if (node instanceof Node.Rule rule) {
        counts[0] += rule instanceof Node.StyleRule ? 1 : 0;
        count(rule.children(), counts);
      }
    }
  }

  private static List<Finding> reading(SheetPart part) {
    List<Finding> findings = new ArrayList<>();
    if (part.file().looksLikeUtf16WithoutBom()) {
      findings.add(new Finding("encoding", part.path(), 1, 1,
          "The file is UTF-16 without a byte order mark, which browsers read as rubbish.", "Save it as UTF-8."));
      return findings;
    }
    if (part.file().isMalformed()) {
      int at = Math.max(0, part.file().text().indexOf('\uFFFD'));
      findings.add(new Finding("encoding", part.path(), part.file().line(at), part.file().column(at),
          "Some characters are not valid " + part.file().charset() + "; browsers show a replacement sign for them.",
          "Save the file as UTF-8, or name its encoding first: @charset \"windows-1252\";"));
    }
    for (SyntaxFault fault : part.sheet().faults()) {
      findings.add(new Finding("syntax", part.path(), part.line(fault.offset()), part.column(fault.offset()), fault.kind().message(),
          fault.kind().mend()));
    }
    return findings;
  }
}
