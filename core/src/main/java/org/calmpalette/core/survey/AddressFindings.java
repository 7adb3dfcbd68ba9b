package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.Address;

/** What is wrong with where things are loaded from. */
final class AddressFindings {
    private AddressFindings() {}

    /** Every place of a file where an address is written, corrected. */
    static Change replace(String title, String file, String url, String right, List<Address> addresses) {
        Change fix = Change.of(title);
        for (Address a : addresses) {
            if (a.file().equals(file) && a.url().equals(url) && a.isPlaced()) {
                fix = fix.with(file, a.corrected(right));
            }
        }
        return fix;
    }

    /** Things that visitors' browsers ask other hosts for. */
    static List<Finding> elsewhere(Theme theme, List<Address> addresses) {
        List<Finding> findings = new ArrayList<>();
        for (Address a : addresses) {
            if (!a.isOnAnotherHost()) {
                continue;
            }
            String rest = a.url().replaceFirst("^[^/]*//", "");
            String host = rest.replaceFirst("[/?#].*", "");
            String name = rest.replaceFirst("[?#].*", "").replaceFirst(".*/", "");
            Optional<String> here = name.isEmpty()
                    ? Optional.empty()
                    : theme.files().paths().stream()
                            .filter(f -> f.equals(name) || f.endsWith("/" + name))
                            .findFirst();
            Finding finding = new Finding(
                            Finding.Kind.OTHER_HOST,
                            a.file(),
                            a.line(),
                            0,
                            "Every visitor's browser asks " + host + " for a "
                                    + a.loads().word() + ": it waits for that host, and the host learns who visits.",
                            here.map(f -> "The theme has " + f + "; use that.")
                                    .orElse("Put the file into the theme and name it from there."))
                    .about(a.url() + "@" + a.loads().word());
            findings.add(here.map(f -> finding.fixedBy(() -> replace(
                            "Took " + name + " from the theme instead of " + host,
                            a.file(),
                            a.url(),
                            Paths.address(Paths.relative(a.file(), f)),
                            addresses)))
                    .orElse(finding));
        }
        return findings;
    }
}
