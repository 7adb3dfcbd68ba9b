package org.calmpalette.core.survey;

import java.util.List;
import java.util.function.Supplier;
import org.calmpalette.core.change.Fix;
import org.calmpalette.core.usage.Painted;

/**
 * Something the survey found that is wrong or wants a look.
 *
 * @param kind a short name that stays the same, such as {@code missing-picture}
 * @param line from 1
 * @param column from 1, in UTF-16 code units; 0 if the whole line is meant
 * @param mend what would put it right, in plain words
 * @param subject what it is about, such as an address or a declaration; with kind and file it names the finding as long
 *     as that stays, wherever the line moves to
 * @param fix makes the mend; null where a person has to decide
 * @param painted what it concerns on the pages; may be empty
 */
public record Finding(String kind, String file, int line, int column, String message, String mend, String subject,
    Supplier<Fix> fix, List<Painted> painted) {

  /** What findings do to a site, the worst first. */
  public enum Group {
    UNSEEN("Not looked at"),
    SHOWN("Visitors see it"),
    LOST("Written, but without effect"),
    SOME("Some visitors miss it"),
    SLOW("Slow, or tells others who visits"),
    LATER("Makes changes hard later");

    private final String words;

    Group(String words) {
      this.words = words;
    }

    public String words() {
      return words;
    }
  }

  public Finding(String kind, String file, int line, int column, String message, String mend) {
    this(kind, file, line, column, message, mend, message, null, List.of());
  }

  public Finding about(String what) {
    return new Finding(kind, file, line, column, message, mend, what, fix, painted);
  }

  public Finding fixedBy(Supplier<Fix> how) {
    return new Finding(kind, file, line, column, message, mend, subject, how, painted);
  }

  public Finding painting(List<Painted> what) {
    return new Finding(kind, file, line, column, message, mend, subject, fix, what);
  }

  public boolean canBeMended() {
    return fix != null;
  }

  /** Names the finding among those of a theme, from one snapshot to the next. */
  public String key() {
    return kind + "|" + file + "|" + subject;
  }

  public Group group() {
    return switch (kind) {
      case "limit" -> Group.UNSEEN;
      case "missing-picture", "missing-stylesheet", "covered-target", "covered-content", "encoding" -> Group.SHOWN;
      case "unreadable-text", "hidden-text", "pushed-text" -> Group.SOME;
      case "heavy-picture", "other-host" -> Group.SLOW;
      case "near-colors", "repeated-color", "repeated-length", "needless-important", "sheet-order", "built-sheet" -> Group.LATER;
      default -> Group.LOST;
    };
  }

  /** The kind as a heading for several of them. */
  public String kindInWords() {
    return switch (kind) {
      case "unusable-setting" -> "Settings that cannot be used";
      case "unknown-setting" -> "Parts bound to no setting";
      case "missing-picture" -> "Missing pictures";
      case "missing-stylesheet" -> "Missing stylesheets";
      case "covered-target" -> "Covered by the header";
      case "covered-content" -> "Hidden behind the header";
      case "unreadable-text" -> "Hard to read";
      case "hidden-text" -> "Hidden from screen readers";
      case "pushed-text" -> "Pushed out of sight";
      case "limit" -> "Beyond what is looked at";
      case "heavy-picture" -> "Heavy pictures";
      case "other-host" -> "From other hosts";
      case "near-colors" -> "Nearly the same colour";
      case "repeated-color" -> "Repeated colours";
      case "repeated-length" -> "Repeated lengths";
      case "needless-important" -> "Needless !important";
      case "sheet-order" -> "Order of stylesheets";
      case "built-sheet" -> "Made by a build";
      case "misspelt-property", "misspelt-value", "misspelt-important" -> "Misspelt";
      case "unknown-property" -> "Unknown properties";
      case "unknown-selector" -> "Unknown selectors";
      case "beaten-declaration" -> "Beaten everywhere";
      case "dead-rule" -> "Finds nothing";
      case "encoding" -> "Encoding";
      case "circular-import", "circular-variable" -> "Circles";
      default -> "Broken syntax";
    };
  }
}
