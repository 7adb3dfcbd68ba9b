package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.BadInputException;

/** All that a theme says about its settings: the content of {@code palette.json}. */
public record Palette(String name, List<Band> bands, List<Place> places, List<Setting> settings) {
  public static final String FILE = "palette.json";

  public Palette {
    bands = List.copyOf(bands);
    places = List.copyOf(places);
    settings = List.copyOf(settings);
  }

  public static Palette empty(String name) {
    return new Palette(name, Band.USUAL, List.of(), List.of());
  }

  public Optional<Setting> setting(String key) {
    return settings.stream().filter(s -> s.key().equals(key)).findFirst();
  }

  public Optional<Place> place(String key) {
    return places.stream().filter(p -> p.key().equals(key)).findFirst();
  }

  public String placeLabel(String key) {
    return place(key).map(Place::label).orElse(key);
  }

  public List<Setting> settingsIn(Place place) {
    return settings.stream().filter(s -> s.place().equals(place.key())).toList();
  }

  /** With one more setting, and its place if it is new. @throws BadInputException if the key exists */
  public Palette with(Setting setting, Place place) {
    if (setting(setting.key()).isPresent()) {
      throw new BadInputException("There is a setting with the key “" + setting.key() + "” already: "
          + setting(setting.key()).orElseThrow().label() + ".", "Choose another key.");
    }
    List<Setting> more = new ArrayList<>(settings);
    more.add(setting);
    return withPlace(place).withSettings(more);
  }

  /** With a setting in the stead of the one that has its key. */
  public Palette replacing(Setting setting, Place place) {
    return withPlace(place)
        .withSettings(settings.stream().map(s -> s.key().equals(setting.key()) ? setting : s).toList());
  }

  public Palette without(String key) {
    return withSettings(settings.stream().filter(s -> !s.key().equals(key)).toList());
  }

  private Palette withSettings(List<Setting> all) {
    return new Palette(name, bands, places, all);
  }

  private Palette withPlace(Place place) {
    if (place(place.key()).isPresent()) {
      return this;
    }
    List<Place> more = new ArrayList<>(places);
    more.add(place);
    return new Palette(name, bands, more, settings);
  }
}
