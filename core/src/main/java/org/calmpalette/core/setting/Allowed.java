package org.calmpalette.core.setting;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.color.Color;

/** What an owner may choose for a colour setting. */
public sealed interface Allowed {
  /** In plain words, for the ledger and for the owner. */
  String inWords();

  /** The colours to choose among; empty where any may be chosen. */
  default List<String> choices() {
    return List.of();
  }

  /** Why a colour may not be chosen, in plain words; empty if it may. */
  Optional<String> refusal(Color color);

  /** Any colour that CSS can write. */
  record AnyColor() implements Allowed {
    @Override
    public String inWords() {
      return "any colour";
    }

    @Override
    public Optional<String> refusal(Color color) {
      return Optional.empty();
    }
  }

  /** One of a few colours. */
  record Swatches(List<String> values) implements Allowed {
    public Swatches {
      values = List.copyOf(values);
    }

    @Override
    public List<String> choices() {
      return values;
    }

    @Override
    public String inWords() {
      return values.size() == 1 ? "one swatch" : values.size() + " swatches";
    }

    @Override
    public Optional<String> refusal(Color color) {
      boolean found = values.stream().flatMap(v -> Color.parse(v).stream()).anyMatch(v -> sameColor(v, color));
      return found ? Optional.empty()
          : Optional.of("Only these colours may be chosen here: " + String.join(", ", values) + ".");
    }
  }

  /** Two colours are the same choice if a screen shows them the same and they are written in spaces alike. */
  static boolean sameColor(Color a, Color b) {
    return ColorKey.of(a).equals(ColorKey.of(b));
  }
}
