package marvek.server.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.reference.CornerEntry;
import marvek.core.reference.CornerPoint;
import marvek.core.reference.PointKind;
import marvek.core.reference.ReferenceContent;
import marvek.core.survey.Things;
import marvek.core.vehicle.VehicleClasses;
import marvek.server.access.DemoSettings;
import marvek.server.account.Accounts;
import marvek.server.account.SignIn;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.reference.ReferenceRow;
import marvek.server.reference.References;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.VehicleRow;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Loads the invented scenario of the demo, once. */
@Component
@ConditionalOnProperty("marvek.demo")
class DemoLoader implements ApplicationRunner {
  private static final String OUTLINE = "demo/falcoeira-ring.csv";
  private static final Map<String, String> NAMES =
      Map.ofEntries(
          Map.entry("c1", "Portão"),
          Map.entry("c2", "Lagar"),
          Map.entry("c3", "Sobreira"),
          Map.entry("c4", "Poço"),
          Map.entry("c5", "Azenha"),
          Map.entry("c6", "Comporta"),
          Map.entry("c7", "Duas Voltas"),
          Map.entry("c8", "Miradouro"),
          Map.entry("c9", "Eira"),
          Map.entry("c10", "Fonte"),
          Map.entry("c11", "Pomar"),
          Map.entry("c12", "Tanque"),
          Map.entry("c13", "Ripa"),
          Map.entry("c14", "Adega"));

  private final Accounts accounts;
  private final SignIn signIn;
  private final Layouts layouts;
  private final SurveyBook book;
  private final Garage garage;
  private final References references;
  private final TransactionTemplate transaction;

  DemoLoader(
      Accounts accounts,
      SignIn signIn,
      Layouts layouts,
      SurveyBook book,
      Garage garage,
      References references,
      TransactionTemplate transaction) {
    this.accounts = accounts;
    this.signIn = signIn;
    this.layouts = layouts;
    this.book = book;
    this.garage = garage;
    this.references = references;
    this.transaction = transaction;
  }

  @Override
  public void run(ApplicationArguments arguments) {
    if (accounts.findByEmail(DemoSettings.Person.DRIVER.email()).isEmpty()) {
      transaction.executeWithoutResult(status -> load());
    }
  }

  private void load() {
    for (DemoSettings.Person person : DemoSettings.Person.values()) {
      signIn.signUp(person.email(), person.fullName(), UUID.randomUUID().toString());
    }
    UUID driver = accounts.findByEmail(DemoSettings.Person.DRIVER.email()).orElseThrow().id();
    byte[] outline = outline();
    LayoutVersion layout =
        layouts.save(
            driver,
            "Falcoeira Ring",
            "Full",
            ZoneId.of("Europe/Lisbon"),
            CircuitReader.read(OutlineFile.read(outline), CircuitReader.Choices.asItComes()),
            "falcoeira-ring.csv",
            outline);
    name(driver, layout);
    VehicleRow gt = vehicle(driver, "Codorniz GT-C", "cup-gt");
    vehicle(driver, "Garça 600", "motorcycle-600");
    vehicle(driver, "Melro S3", "downforce-prototype");
    tellStory(driver, references.draft(driver, layout.id(), gt.id(), ""));
  }

  private void name(UUID driver, LayoutVersion layout) {
    List<Corner> named =
        layout.corners().stream().map(c -> c.named(NAMES.getOrDefault(c.id(), ""))).toList();
    book.apply(
        driver,
        layout.id(),
        new SurveyBook.SurveyChange(
            UUID.randomUUID(), Things.none(), List.of(), Map.of(), named, layout.cornersVersion()));
  }

  private VehicleRow vehicle(UUID driver, String name, String basedOn) {
    return garage.add(driver, name, basedOn, VehicleClasses.byId(basedOn).vehicle());
  }

  private void tellStory(UUID driver, ReferenceRow drafted) {
    UUID id = drafted.id();
    save(driver, id, "First draft from the outline, before driving. Boards only.");
    change(
        driver,
        id,
        Map.of(
            "c1", e -> noted(moved(e, PointKind.BRAKE, 5), "Stay right, the left is dusty"),
            "c4", e -> moved(e, PointKind.BRAKE, 4),
            "c8", e -> noted(e, "Blind over the crest: aim for the lone pine before it shows"),
            "c14", e -> moved(e, PointKind.FULL_THROTTLE, 6)));
    save(
        driver,
        id,
        "After Friday practice 1: 1 and 4 had room to spare, 14 ran wide on full throttle.");
    change(
        driver,
        id,
        Map.of(
            "c1", e -> moved(e, PointKind.BRAKE, 3),
            "c9", e -> noted(e, "Give this one away, 10 pays for it"),
            "c12", e -> moved(moved(e, PointKind.BRAKE, 3), PointKind.RELEASE, -4),
            "c14", e -> noted(moved(e, PointKind.BRAKE, 4), "Patience: wait for the bridge")));
    save(
        driver,
        id,
        "After Friday practice 2: one step later into 1, 12 and 14; off the brake sooner in 12.");
    change(
        driver,
        id,
        Map.of(
            "c5", e -> moved(e, PointKind.BRAKE, 3),
            "c4", e -> noted(e, "Bumps on the way in: firm, then wait")));
  }

  private void save(UUID driver, UUID id, String reason) {
    references.save(driver, id, references.open(driver, id).row().version(), reason);
  }

  private void change(UUID driver, UUID id, Map<String, Function<CornerEntry, CornerEntry>> how) {
    References.Opened opened = references.open(driver, id);
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      Function<CornerEntry, CornerEntry> edit = how.get(e.corner());
      entries.add(edit == null ? e : references.answer(opened, edit.apply(e)).entry());
    }
    references.work(driver, id, opened.row().version(), new ReferenceContent(entries));
  }

  private static CornerEntry moved(CornerEntry e, PointKind kind, double by) {
    List<CornerPoint> points =
        e.points().stream()
            .map(p -> p.kind() == kind ? new CornerPoint(p.kind(), p.station() + by, p.tie()) : p)
            .toList();
    return with(e, points, e.note());
  }

  private static CornerEntry noted(CornerEntry e, String note) {
    return with(e, e.points(), note);
  }

  private static CornerEntry with(CornerEntry e, List<CornerPoint> points, String note) {
    return new CornerEntry(
        e.corner(),
        e.slowing(),
        points,
        e.approachGear(),
        e.approachSpeed(),
        e.firstEffort(),
        e.gear(),
        e.minimumSpeed(),
        e.apexType(),
        e.apexGap(),
        e.firstThrottle(),
        note);
  }

  private static byte[] outline() {
    try (var in = new ClassPathResource(OUTLINE).getInputStream()) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
