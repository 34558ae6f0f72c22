package marvek.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "marvek.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
  @ArchTest
  static final ArchRule KNOWS_NO_FRAMEWORK =
      noClasses()
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "org.springframework..", "jakarta..", "org.hibernate..", "java.sql..", "java.net..");

  @ArchTest
  static final ArchRule HAS_NO_CLOCK_AND_NO_CHANCE_OF_ITS_OWN =
      noClasses()
          .should()
          .callMethod(System.class, "currentTimeMillis")
          .orShould()
          .callMethod(System.class, "nanoTime")
          .orShould()
          .callMethod(Math.class, "random")
          .orShould()
          .callMethod(java.time.Instant.class, "now");

  @ArchTest
  static final ArchRule NOTIONS_DEPEND_ONE_WAY =
      slices().matching("marvek.core.(*)..").should().beFreeOfCycles();

  /** What the simulated driver tells is the truth for tests of the code that reads recordings. */
  @ArchTest
  static final ArchRule LOGGER_AND_READING_DO_NOT_KNOW_EACH_OTHER =
      noClasses()
          .that()
          .resideInAPackage("marvek.core.logger..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("marvek.core.telemetry..", "marvek.core.debrief..");

  @ArchTest
  static final ArchRule READING_DOES_NOT_KNOW_THE_LOGGER =
      noClasses()
          .that()
          .resideInAnyPackage("marvek.core.telemetry..", "marvek.core.debrief..")
          .should()
          .dependOnClassesThat()
          .resideInAPackage("marvek.core.logger..");
}
