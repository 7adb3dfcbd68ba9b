package org.calmpalette.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** Features stand on each other in one direction only. */
@Order(1)
class ArchitectureTest {
    /** Each may use those before it. */
    private static final List<String> ORDER = List.of(
            "web",
            "work",
            "storage",
            "accounts",
            "frames",
            "themes",
            "settings",
            "survey",
            "promises",
            "pictures",
            "sections",
            "sites",
            "previews",
            "handover",
            "people",
            "demo");

    private static final JavaClasses APP = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("org.calmpalette.app");

    @Test
    void thereIsNoCircleBetweenFeatures() {
        slices().matching("org.calmpalette.app.(*)..").should().beFreeOfCycles().check(APP);
    }

    @Test
    void eachFeatureUsesOnlyThoseBeforeIt() {
        for (int i = 0; i < ORDER.size(); i++) {
            String[] later = ORDER.subList(i + 1, ORDER.size()).stream()
                    .map(p -> "org.calmpalette.app." + p + "..")
                    .toArray(String[]::new);
            if (later.length > 0) {
                noClasses()
                        .that()
                        .resideInAPackage("org.calmpalette.app." + ORDER.get(i) + "..")
                        .should()
                        .dependOnClassesThat()
                        .resideInAnyPackage(later)
                        .check(APP);
            }
        }
    }
}
