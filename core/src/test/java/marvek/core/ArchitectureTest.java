package marvek.core;

import static com.tngtech.archunit.base.DescribedPredicate.describe;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.List;
import java.util.Set;

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

  /** The order of hash tables differs from one start to the next: no result may rest on it. */
  @ArchTest
  static final ArchRule NO_RESULT_DEPENDS_ON_THE_ORDER_OF_A_HASH_TABLE =
      noClasses()
          .should()
          .callConstructorWhere(
              owner(java.util.HashMap.class, java.util.HashSet.class)
                  .as("makes a hash table without an order"))
          .orShould()
          .callMethodWhere(
              owner(java.util.Map.class, java.util.Set.class)
                  .and(
                      describe(
                          "fills a table whose order is drawn by lot",
                          c ->
                              Set.of("of", "ofEntries", "copyOf").contains(c.getName())
                                  && !c.getTarget().getRawParameterTypes().isEmpty())))
          .orShould()
          .callMethodWhere(
              owner(java.util.stream.Collectors.class)
                  .and(
                      describe(
                          "collects into a hash table",
                          c ->
                              c.getName().equals("toSet")
                                  || c.getName().equals("toUnmodifiableMap")
                                  || Set.of("toMap", "groupingBy").contains(c.getName())
                                      && c.getTarget().getRawParameterTypes().size() < 3)));

  /** No locale, zone or charset of the machine decides a result. */
  @ArchTest
  static final ArchRule NO_RESULT_DEPENDS_ON_THE_MACHINES_LOCALE =
      noClasses()
          .should()
          .callMethod(java.util.Locale.class, "getDefault")
          .orShould()
          .callMethod(java.time.ZoneId.class, "systemDefault")
          .orShould()
          .callMethod(java.nio.charset.Charset.class, "defaultCharset")
          .orShould()
          .callMethod(String.class, "format", String.class, Object[].class)
          .orShould()
          .callMethod(String.class, "formatted", Object[].class)
          .orShould()
          .callMethod(String.class, "toLowerCase")
          .orShould()
          .callMethod(String.class, "toUpperCase")
          .orShould()
          .callMethod(String.class, "getBytes")
          .orShould()
          .callConstructor(String.class, byte[].class);

  private static com.tngtech.archunit.base.DescribedPredicate<JavaCall<?>> owner(
      Class<?>... owners) {
    return describe(
        "of " + List.of(owners),
        c -> List.of(owners).stream().anyMatch(o -> c.getTargetOwner().isEquivalentTo(o)));
  }
}
