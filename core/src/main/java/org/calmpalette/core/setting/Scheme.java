package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/** A named set of values, ready-made for an owner. */
public record Scheme(String key, String label, Map<String, Chosen> values) {
  public Scheme {
    values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
  }
}
