package marvek.server;

import static com.tngtech.archunit.base.DescribedPredicate.describe;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.properties.HasName;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import jakarta.persistence.Entity;
import java.util.concurrent.CompletableFuture;
import java.util.function.Supplier;
import org.springframework.data.repository.Repository;
import org.springframework.web.bind.annotation.RestController;

@AnalyzeClasses(packages = "marvek", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
  @ArchTest
  static final ArchRule CORE_KNOWS_NO_SERVER =
      noClasses()
          .that()
          .resideInAPackage("marvek.core..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("marvek.server..", "org.springframework..", "jakarta..");

  @ArchTest
  static final ArchRule FEATURES_DEPEND_ONE_WAY =
      slices().matching("marvek.server.(*)..").should().beFreeOfCycles();

  @ArchTest
  static final ArchRule REPOSITORIES_STAY_INSIDE_THEIR_FEATURE =
      classes()
          .that()
          .areAssignableTo(Repository.class)
          .and()
          .doNotHaveSimpleName("Accounts")
          .should()
          .bePackagePrivate();

  @ArchTest
  static final ArchRule CONTROLLERS_ARE_NOBODYS_API =
      classes().that().areAnnotatedWith(RestController.class).should().bePackagePrivate();

  @ArchTest
  static final ArchRule EVERY_ROW_HAS_AN_OWNER =
      classes()
          .that()
          .areAnnotatedWith(Entity.class)
          .and()
          .resideOutsideOfPackage("marvek.server.account..")
          .should(
              com.tngtech.archunit.lang.conditions.ArchConditions.be(
                  com.tngtech.archunit.base.DescribedPredicate.describe(
                      "owned",
                      c -> c.getFields().stream().anyMatch(f -> f.getName().equals("ownerId")))));

  /** A way through the code goes on and does not come back: no two files ask each other. */
  @ArchTest
  static void noTwoFilesCallEachOther(JavaClasses all) {
    assertThat(BothWays.of(all)).isEmpty();
  }

  /** Views belong to controllers; what serves them does not know them. */
  @ArchTest
  static final ArchRule SERVICES_KNOW_NO_CONTROLLER =
      noClasses()
          .that(describe("serve", c -> !controller(c)))
          .should()
          .dependOnClassesThat(describe("are a controller's", c -> controller(c)));

  private static boolean controller(JavaClass c) {
    JavaClass outer = c;
    while (outer.getEnclosingClass().isPresent()) {
      outer = outer.getEnclosingClass().get();
    }
    return outer.isAnnotatedWith(RestController.class);
  }

  private static DescribedPredicate<JavaCall<?>> called(String name) {
    return JavaCall.Predicates.target(HasName.Predicates.name(name));
  }

  /**
   * Who waits for a pool that all share, with a lock of a cache or a connection in hand, may wait
   * for ever for somebody who wants that lock. In core as well, which is called with both in hand.
   */
  @ArchTest
  static void nobodyWaitsForThePoolThatAllShare(JavaClasses server) {
    noClasses()
        .should()
        .callMethodWhere(called("parallelStream").or(called("parallel")).or(called("commonPool")))
        .orShould()
        .callMethod(CompletableFuture.class, "supplyAsync", Supplier.class)
        .orShould()
        .callMethod(CompletableFuture.class, "runAsync", Runnable.class)
        .check(
            new ClassFileImporter()
                .withImportOption(new ImportOption.DoNotIncludeTests())
                .importPackages("marvek.core", "marvek.server"));
  }
}
