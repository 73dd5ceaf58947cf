package nightreed;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.fields;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.ArrayList;
import java.util.List;

/** Rooms of the flow: each may use only those above it. */
@AnalyzeClasses(packages = "nightreed", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    private static final List<String> ROOMS = List.of(
            "work", "files", "dsp", "optim", "music", "sound", "measure", "claim", "recipe", "typical", "machine",
            "voice", "match", "play", "project", "sheet", "device");

    @ArchTest
    void eachRoomUsesOnlyThoseAboveIt(com.tngtech.archunit.core.domain.JavaClasses all) {
        for (int i = 0; i < ROOMS.size(); i++) {
            List<String> below = new ArrayList<>();
            for (String room : ROOMS.subList(i + 1, ROOMS.size())) {
                below.add("nightreed." + room + "..");
            }
            below.add("nightreed.room..");
            if (!below.isEmpty()) {
                noClasses()
                        .that()
                        .resideInAPackage("nightreed." + ROOMS.get(i) + "..")
                        .should()
                        .dependOnClassesThat()
                        .resideInAnyPackage(below.toArray(String[]::new))
                        .allowEmptyShould(true)
                        .check(all);
            }
        }
    }

    @ArchTest
    static final ArchRule NO_CYCLES =
            slices().matching("nightreed.(*)..").should().beFreeOfCycles();

    /** Hearing, sound, compare, start, its families, method, fit: each may use only those before it. */
    @ArchTest
    static final ArchRule MATCH_HAS_ROOMS =
            slices().matching("nightreed.match.(**)").should().beFreeOfCycles();

    /** Only the list of methods names them; all else asks the descriptor. */
    @ArchTest
    static final ArchRule ONLY_THE_LIST_KNOWS_THE_METHODS = noClasses()
            .that()
            .resideOutsideOfPackages("nightreed.match.method..", "nightreed.match.start..")
            .should()
            .dependOnClassesThat()
            .haveNameMatching("nightreed\\.match\\.start\\.\\w+\\.\\w+");

    @ArchTest
    static final ArchRule THE_ROOM_SHARES_NOTHING_WITH_THE_VOICES = classes()
            .that()
            .resideInAPackage("nightreed.room..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("java..", "nightreed.room..", "nightreed.dsp..", "nightreed.sound..");

    @ArchTest
    static final ArchRule NO_INTERFACE_CODE = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("javafx..", "java.awt..", "javax.swing..", "nightreed.desktop..", "nightreed.cli..");

    @ArchTest
    static final ArchRule STATICS_HOLD_NO_STATE = fields().that()
            .areStatic()
            .and()
            .areNotFinal()
            .should()
            .notBeStatic()
            .allowEmptyShould(true);
}
