package org.calmpalette.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.properties.HasName;
import com.tngtech.archunit.core.domain.properties.HasOwner;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** The rules of the job know no interface, and each idea stands only on those before it. */
@Order(1)
class ArchitectureTest {
    private static final List<String> ORDER = List.of(
            "language",
            "color",
            "paint",
            "css",
            "value",
            "page",
            "picture",
            "cascade",
            "background",
            "setting",
            "theme",
            "output",
            "render",
            "usage",
            "change",
            "part",
            "section",
            "survey",
            "recipe",
            "promise",
            "intake",
            "formats");
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("org.calmpalette.core");

    @Test
    void coreUsesNoFrameworkAndNoInterface() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.springframework..", "jakarta..", "org.hibernate..", "picocli..")
                .check(CORE);
    }

    @Test
    void eachPackageStandsOnlyOnThoseBeforeIt() {
        for (int i = 0; i < ORDER.size(); i++) {
            String[] later = ORDER.subList(i + 1, ORDER.size()).stream()
                    .map(p -> "org.calmpalette.core." + p + "..")
                    .toArray(String[]::new);
            if (later.length > 0) {
                noClasses()
                        .that()
                        .resideInAPackage("org.calmpalette.core." + ORDER.get(i) + "..")
                        .should()
                        .dependOnClassesThat()
                        .resideInAnyPackage(later)
                        .allowEmptyShould(true)
                        .check(CORE);
            }
        }
        classes()
                .should()
                .resideInAnyPackage(ORDER.stream()
                        .map(p -> "org.calmpalette.core." + p + "..")
                        .toList()
                        .toArray(new String[0]))
                .orShould()
                .resideInAPackage("org.calmpalette.core")
                .check(CORE);
    }

    /** Whatever reads a stranger's picture goes through the one place that keeps native readers out. */
    @Test
    void readersAndWritersOfPicturesAreAskedForInOnePlace() {
        noClasses()
                .that()
                .doNotHaveFullyQualifiedName("org.calmpalette.core.picture.Engine")
                .should()
                .callMethodWhere(JavaCall.Predicates.target(
                                HasOwner.Predicates.With.owner(HasName.Predicates.name("javax.imageio.ImageIO")))
                        .and(JavaCall.Predicates.target(
                                HasName.Predicates.nameMatching("read|write|getImageReaders.*|getImageWriters.*"))))
                .check(CORE);
    }
}
