package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;

/** The settings of a section that is being made, each with a key of its own. */
final class NewSettings {
    private final String place;
    private final List<Setting> all = new ArrayList<>();

    NewSettings(String place) {
        this.place = place;
    }

    List<Setting> all() {
        return List.copyOf(all);
    }

    void add(Setting setting) {
        all.add(setting);
    }

    /** @return its key: what is wanted, with a number where that is taken */
    String add(String wanted, String label, Kind kind, Value value) {
        String key = free(wanted);
        all.add(Setting.of(key, label, "", place, kind, value));
        return key;
    }

    String free(String wanted) {
        Set<String> taken = new TreeSet<>();
        all.forEach(s -> taken.add(s.key()));
        return free(taken, wanted);
    }

    static String free(Set<String> taken, String wanted) {
        String name = wanted;
        for (int i = 2; taken.contains(name); i++) {
            name = wanted + "-" + i;
        }
        return name;
    }
}
