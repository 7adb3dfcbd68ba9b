package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.calmpalette.core.build.Rendered;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SyntaxFault;
import org.calmpalette.core.mend.SheetRole;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;

/**
 * What is fixed in a theme, and what is wrong with it.
 *
 * @param roles whose each stylesheet is, by path
 * @param fates what becomes of each declaration on the pages
 * @param findings the worst groups first
 */
public record Survey(List<SheetSummary> stylesheets, ColorSurvey.Result colors, List<PictureUse> pictures,
    Map<String, SheetRole> roles, Map<Fates.Key, Fates.Fate> fates, List<Finding> findings) {

  /**
   * A stylesheet in numbers.
   *
   * @param rules rules with a selector, nested ones and keyframes too
   */
  public record SheetSummary(String file, int bytes, int rules, int declarations) {}

  /** Hears how far a survey is. */
  @FunctionalInterface
  public interface Progress {
    void step(int done, int total, String what);
  }

  public static Survey of(Theme theme) {
    return of(new Rendered(theme), ColorSurvey.of(theme), (done, total, what) -> { });
  }

  public static Survey of(Rendered rendered, ColorSurvey.Result colors, Progress progress) {
    Theme theme = rendered.theme();
    int pages = theme.pages().size();
    int total = pages + 2;
    progress.step(0, total, "stylesheets");
    List<SheetSummary> summaries = new ArrayList<>();
    List<Finding> findings = new ArrayList<>();
    for (SheetPart part : theme.sheets()) {
      int[] counts = new int[2];
      count(part.sheet().rules(), counts);
      int bytes = part.offset() == 0 ? part.file().size() : part.sheet().source().size();
      summaries.add(new SheetSummary(part.path(), bytes, counts[0], counts[1]));
      findings.addAll(reading(part));
    }
    Map<String, SheetRole> roles = SheetRole.of(theme);
    // Both go through all pages and need nothing of each other: one core each.
    CompletableFuture<List<Finding>> onPages = CompletableFuture.supplyAsync(() -> PageFindings.of(rendered, roles));
    Map<Fates.Key, Fates.Fate> fates = Fates.of(theme.pages(), rendered.library(),
        n -> progress.step(n, total, "page " + n + " of " + pages));
    List<PictureUse> pictures = Pictures.of(theme);
    List<Addresses.Address> addresses = Addresses.of(theme);
    findings.addAll(SettingFindings.of(theme));
    findings.addAll(SheetFindings.of(theme));
    findings.addAll(PictureFindings.of(theme, pictures, addresses));
    findings.addAll(SpellingFindings.of(theme, roles));
    progress.step(pages + 1, total, "texts of the pages");
    findings.addAll(onPages.join());
    findings.addAll(RuleFindings.of(rendered, roles, fates));
    findings.addAll(Addresses.elsewhere(theme, addresses));
    findings.addAll(RepeatFindings.of(theme, colors, roles));
    findings.sort(Comparator.comparing(Finding::group).thenComparing(Finding::kindInWords));
    return new Survey(List.copyOf(summaries), colors, pictures, roles, fates, List.copyOf(findings));
  }

  public Optional<Finding> finding(String key) {
    return findings.stream().filter(f -> f.key().equals(key)).findFirst();
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
      // A star before a property hides it from all but very old browsers: common practice once, and no slip.
      if (part.sheet().source().text().startsWith("*", fault.offset())) {
        continue;
      }
      findings.add(new Finding("syntax", part.path(), part.line(fault.offset()), part.column(fault.offset()), fault.kind().message(),
          fault.kind().mend()));
    }
    return findings;
  }
}
